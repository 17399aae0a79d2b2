#include "serve/admission.hpp"

#include <gtest/gtest.h>

namespace gaze::serve {
namespace {

constexpr std::uint16_t kPort = 4293;
constexpr const char* kSecret = "0123456789abcdef";

Admission of(std::string_view host, std::string_view origin, std::string_view target,
             bool wants_talk = false, bool is_get = true) {
  return admit({host, origin, target, is_get, wants_talk}, kPort, kSecret);
}

TEST(Admission, LetsInItsOwnPage) {
  for (const char* host : {"127.0.0.1:4293", "localhost:4293", "[::1]:4293"}) {
    const Admission page = of(host, "", "/0123456789abcdef/");
    EXPECT_EQ(page.refusal, "");
    EXPECT_EQ(page.file, "index.html");
    EXPECT_EQ(of(host, "", "/0123456789abcdef/draw.js").file, "draw.js");
    const std::string origin = std::string("http://") + host;
    EXPECT_TRUE(of(host, origin, "/0123456789abcdef/talk", true).is_talk);
  }
}

TEST(Admission, TurnsOthersAway) {
  const char* own = "127.0.0.1:4293";
  const char* page = "/0123456789abcdef/";
  const auto refusal = [](const Admission& one) { return one.refusal; };
  for (const char* host : {"", "127.0.0.1", "127.0.0.1:80", "attacker.example:4293",
                           "127.0.0.1:4293.attacker.example", "127.0.0.1:42930"}) {
    EXPECT_EQ(refusal(of(host, "", page)), "a request for another host") << host;
  }
  for (const char* origin : {"null", "http://attacker.example", "https://127.0.0.1:4293",
                             "http://127.0.0.1:80", "http://127.0.0.1:4293.attacker.example"}) {
    EXPECT_EQ(refusal(of(own, origin, page)), "a request by a page of another origin") << origin;
  }
  for (const char* target :
       {"", "/", "*", "/0123456789abcdef", "/0123456789abcdee/", "//", "/0123456789abcdef0/",
        "0123456789abcdef/", "/../0123456789abcdef/", "/talk", "http://127.0.0.1:4293/"}) {
    EXPECT_EQ(refusal(of(own, "", target)), "a request without the secret") << target;
  }
  EXPECT_EQ(refusal(of(own, "", "/0123456789abcdef/talk", true)), "a talk without an origin");
  EXPECT_EQ(refusal(of(own, "http://127.0.0.1:4293", page, true)), "a talk at another place");
  EXPECT_EQ(refusal(of(own, "", page, false, false)), "a request that is no GET");
}

}  // namespace
}  // namespace gaze::serve
