#include "page_secret.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <optional>
#include <random>

namespace gaze::cli {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t kDigits = 32;

std::optional<fs::path> folder() {
  const auto of = [](const char* variable) -> std::optional<fs::path> {
    const char* value = std::getenv(variable);
    return value != nullptr && *value == '/' ? std::optional<fs::path>(value) : std::nullopt;
  };
  if (auto own = of("XDG_RUNTIME_DIR")) return own;
  if (auto own = of("XDG_STATE_HOME")) return *own / "gaze";
  if (auto home = of("HOME")) return *home / ".local/state/gaze";
  return std::nullopt;
}

bool is_secret(const std::string& text) {
  return text.size() == kDigits && text.find_first_not_of("0123456789abcdef") == std::string::npos;
}

// Only what nobody else could have written or read counts.
std::optional<std::string> kept_secret(const fs::path& file) {
  const int descriptor = open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW);
  if (descriptor < 0) return std::nullopt;
  struct stat status {};
  std::string text(kDigits, '\0');
  const bool is_own = fstat(descriptor, &status) == 0 && status.st_uid == getuid() &&
                      (status.st_mode & 077U) == 0 && S_ISREG(status.st_mode);
  const bool is_read = is_own && ::read(descriptor, text.data(), text.size()) == ssize_t(kDigits);
  close(descriptor);
  return is_read && is_secret(text) ? std::optional(text) : std::nullopt;
}

// Whole or not at all; if it cannot be kept, it is one for this time.
void keep_secret(const fs::path& file, const std::string& secret) {
  std::error_code fault;
  fs::create_directories(file.parent_path(), fault);
  const fs::path begun = file.string() + fmt::format(".{}", getpid());
  const int descriptor = open(begun.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0600);
  if (descriptor < 0) return;
  const bool is_whole = write(descriptor, secret.data(), secret.size()) == ssize_t(secret.size());
  close(descriptor);
  if (is_whole) fs::rename(begun, file, fault);
  if (!is_whole || fault) fs::remove(begun, fault);
}

std::string new_secret() {
  std::random_device random;
  std::string secret;
  while (secret.size() < kDigits) secret += fmt::format("{:08x}", random());
  return secret;
}

}  // namespace

std::string page_secret() {
  const auto place = folder();
  if (!place) return new_secret();
  const fs::path file = *place / "gaze-page-secret";
  if (auto kept = kept_secret(file)) return *kept;
  const std::string secret = new_secret();
  keep_secret(file, secret);
  return secret;
}

}  // namespace gaze::cli
