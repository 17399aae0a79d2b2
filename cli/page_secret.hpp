#pragma once

#include <string>

namespace gaze::cli {

/// The secret in the address of the page: 32 digits that nobody guesses. It is kept in a folder of
/// the user's alone, in a file that nobody else can read, so that a page that is open finds its
/// server again after that was started anew; without such a folder it is another each time.
[[nodiscard]] std::string page_secret();

}  // namespace gaze::cli
