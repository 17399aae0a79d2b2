#include "c/calls.hpp"

#include "gaze/version.hpp"

namespace gaze::c {
namespace {

// Of each thread its own, and without memory of its own: it is there when there is none left.
struct Refusal {
  std::array<char, 1024> words{};
  std::size_t length = 0;
};
thread_local Refusal last_refusal;

}  // namespace

gaze_status refuse(gaze_status status, std::string_view why) noexcept {
  last_refusal.length = std::min(why.size(), last_refusal.words.size());
  std::memcpy(last_refusal.words.data(), why.data(), last_refusal.length);
  return status;
}

gaze_status give_bytes(const void* bytes, std::size_t count, void* to, std::size_t room,
                       std::size_t* length) {
  need(length, "the length") = count;
  if (count > room) return refuse(GAZE_ROOM, "there is no room for all bytes");
  if (count > 0) std::memcpy(&need(static_cast<std::byte*>(to), "the room"), bytes, count);
  return GAZE_OK;
}

}  // namespace gaze::c

using namespace gaze;
using namespace gaze::c;

const char* gaze_version() {
#define GAZE_WORDS_OF(number) #number
#define GAZE_WORDS_AS(number) GAZE_WORDS_OF(number)
  return GAZE_WORDS_AS(GAZE_VERSION_MAJOR) "." GAZE_WORDS_AS(GAZE_VERSION_MINOR) "." GAZE_WORDS_AS(
      GAZE_VERSION_PATCH);
#undef GAZE_WORDS_AS
#undef GAZE_WORDS_OF
}

gaze_text gaze_why() {
  return {last_refusal.words.data(), last_refusal.length};
}
