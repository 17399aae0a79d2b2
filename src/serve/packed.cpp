#include "serve/packed.hpp"

#include <boost/archive/iterators/base64_from_binary.hpp>
#include <boost/archive/iterators/transform_width.hpp>
#include <boost/beast/zlib/deflate_stream.hpp>
#include <stdexcept>

namespace gaze::serve {

std::string deflated(std::string_view bytes) {
  namespace zlib = boost::beast::zlib;
  zlib::deflate_stream stream;
  stream.reset(9, 15, 8, zlib::Strategy::normal);
  std::string packed(stream.upper_bound(bytes.size()) + 64, '\0');
  zlib::z_params io;
  io.next_in = bytes.data();
  io.avail_in = bytes.size();
  io.next_out = packed.data();
  io.avail_out = packed.size();
  boost::system::error_code fault;
  stream.write(io, zlib::Flush::finish, fault);
  if (fault && fault != zlib::error::end_of_stream) throw std::runtime_error(fault.message());
  packed.resize(io.total_out);
  return packed;
}

std::string base64_of(std::string_view bytes) {
  using namespace boost::archive::iterators;
  using Digits = base64_from_binary<transform_width<std::string_view::const_iterator, 6, 8>>;
  const std::size_t padding = (3 - bytes.size() % 3) % 3;
  std::string padded(bytes);
  padded.append(padding, '\0');
  const std::string_view whole = padded;
  std::string text(Digits(whole.begin()), Digits(whole.end()));
  text.replace(text.size() - padding, padding, std::string(padding, '='));
  return text;
}

}  // namespace gaze::serve
