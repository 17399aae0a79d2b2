#include <sys/ioctl.h>
#include <unistd.h>

#include <iostream>

#include "command_line.hpp"
#include "output.hpp"

namespace {

std::size_t columns_of_terminal() {
  winsize size{};
  return ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) == 0 ? size.ws_col : 0;
}

}  // namespace

int main(int argc, char** argv) {
  gaze::cli::end_cleanly_by_signals();
  std::ios::sync_with_stdio(false);
  return gaze::cli::command({argv + 1, argv + argc}, {std::cout, std::cerr, columns_of_terminal()});
}
