#include "serve/admission.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace gaze::serve {
namespace {

constexpr std::array<std::string_view, 3> kNames{"127.0.0.1", "localhost", "[::1]"};

bool is_own_host(std::string_view host, std::uint16_t port) {
  return std::any_of(kNames.begin(), kNames.end(), [&](std::string_view name) {
    return host == fmt::format("{}:{}", name, port) || (port == 80 && host == name);
  });
}

bool is_own_origin(std::string_view origin, std::uint16_t port) {
  constexpr std::string_view kScheme = "http://";
  return origin.starts_with(kScheme) && is_own_host(origin.substr(kScheme.size()), port);
}

// Takes as long wherever the first difference is.
bool is_alike(std::string_view a, std::string_view b) {
  if (a.size() != b.size()) return false;
  unsigned difference = 0;
  for (std::size_t i = 0; i < a.size(); ++i) {
    difference |= static_cast<unsigned char>(a[i]) ^ static_cast<unsigned char>(b[i]);
  }
  return difference == 0;
}

}  // namespace

Admission admit(const Request& request, std::uint16_t port, std::string_view secret) {
  if (!is_own_host(request.host, port)) return {"a request for another host", {}, false};
  if (!request.origin.empty() && !is_own_origin(request.origin, port)) {
    return {"a request by a page of another origin", {}, false};
  }
  const std::string_view target = request.target.substr(0, request.target.find('?'));
  const std::size_t slash = target.find('/', 1);
  const bool has_secret = target.starts_with('/') && slash != std::string_view::npos &&
                          is_alike(target.substr(1, slash - 1), secret);
  if (!has_secret) return {"a request without the secret", {}, false};
  const std::string_view file = target.substr(slash + 1);
  if (request.wants_talk) {
    if (request.origin.empty()) return {"a talk without an origin", {}, false};
    if (file != "talk") return {"a talk at another place", {}, false};
    return {"", file, true};
  }
  if (!request.is_get) return {"a request that is no GET", {}, false};
  return {"", file.empty() ? "index.html" : file, false};
}

}  // namespace gaze::serve
