#pragma once

#include <chrono>
#include <cstdint>
#include <functional>
#include <memory>
#include <string>

#include "serve/session.hpp"

namespace gaze::serve {

/// Serves the page of a session on this machine alone: to 127.0.0.1 and, where there is one, ::1.
/// Nothing answers without the secret in its address. It has one thread: that of `run`.
class Server {
 public:
  struct Options {
    std::uint16_t port = 0;                      ///< 0: any that is free.
    std::string secret;                          ///< Letters and digits.
    std::chrono::milliseconds patience{10'000};  ///< With who asks nothing, or takes no answer.
    /// Told of each sort of thing that was refused, once.
    std::function<void(const std::string&)> log;
  };

  /// Takes the port. Throws std::runtime_error if it cannot.
  Server(Session& session, Options options);
  ~Server();
  Server(const Server&) = delete;
  Server& operator=(const Server&) = delete;

  [[nodiscard]] std::string address() const;  ///< "http://127.0.0.1:PORT/SECRET/"
  [[nodiscard]] std::uint16_t port() const;

  void run();   ///< Until it is stopped.
  void stop();  ///< From any thread.

 private:
  class Inside;
  std::unique_ptr<Inside> inside_;
};

}  // namespace gaze::serve
