#include "serve/packed.hpp"

#include <gtest/gtest.h>

#include <boost/beast/zlib/inflate_stream.hpp>

#include "scenes.hpp"

namespace gaze::serve {
namespace {

// RFC 4648, section 10.
TEST(Packed, Base64IsThatOfItsStandard) {
  const char* pairs[][2] = {{"", ""},
                            {"f", "Zg=="},
                            {"fo", "Zm8="},
                            {"foo", "Zm9v"},
                            {"foob", "Zm9vYg=="},
                            {"fooba", "Zm9vYmE="},
                            {"foobar", "Zm9vYmFy"}};
  for (const auto& [plain, coded] : pairs) EXPECT_EQ(base64_of(plain), coded);
  EXPECT_EQ(base64_of(std::string("\xff\x00\xfe", 3)), "/wD+");
}

std::string inflated(const std::string& packed, std::size_t size) {
  namespace zlib = boost::beast::zlib;
  zlib::inflate_stream stream;
  std::string plain(size + 1, '\0');
  zlib::z_params io;
  io.next_in = packed.data();
  io.avail_in = packed.size();
  io.next_out = plain.data();
  io.avail_out = plain.size();
  boost::system::error_code fault;
  stream.write(io, zlib::Flush::sync, fault);
  plain.resize(io.total_out);
  return plain;
}

TEST(Packed, DeflatedBytesComeBack) {
  for (std::uint64_t seed = 1; seed <= 40; ++seed) {
    scenes::Random random(seed);
    std::string bytes;
    const std::size_t size = seed == 1 ? 0 : random.next() % 200'000;
    const std::uint64_t sorts = 1 + random.next() % 256;
    while (bytes.size() < size) bytes.push_back(static_cast<char>(random.next() % sorts));
    EXPECT_EQ(inflated(deflated(bytes), bytes.size()), bytes) << seed;
  }
  EXPECT_LT(deflated(std::string(100'000, 'a')).size(), 1'000U);
}

}  // namespace
}  // namespace gaze::serve
