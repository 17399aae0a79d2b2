#include <csignal>
#include <iostream>

#include "commands.hpp"

int main(int argc, char** argv) {
  std::signal(SIGPIPE, SIG_IGN);  // a reader that went away is an error like any other
  std::ios::sync_with_stdio(false);
  return gaze::cli::command({argv + 1, argv + argc}, {std::cout, std::cerr});
}
