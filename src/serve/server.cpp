#include "serve/server.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/asio/io_context.hpp>
#include <boost/asio/ip/tcp.hpp>
#include <boost/asio/ip/v6_only.hpp>
#include <boost/asio/post.hpp>
#include <boost/asio/steady_timer.hpp>
#include <boost/beast/core.hpp>
#include <boost/beast/http.hpp>
#include <boost/beast/websocket.hpp>
#include <chrono>
#include <deque>
#include <set>
#include <utility>

#include "level/spelling.hpp"
#include "serve/admission.hpp"
#include "serve/conversation.hpp"
#include "serve/page_files.hpp"

namespace gaze::serve {
namespace {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
namespace websocket = beast::websocket;
using tcp = asio::ip::tcp;
using ErrorCode = boost::system::error_code;
using Clock = std::chrono::steady_clock;
using std::chrono::milliseconds;
using std::chrono::seconds;

constexpr std::size_t kMostConnections = 64;
constexpr std::size_t kMostHeader = 8192;    // bytes
constexpr std::size_t kMostMessage = 65536;  // bytes
constexpr std::size_t kMostAnswers = 64;     // that wait for a page to take them
constexpr auto kFrame = milliseconds(16);
constexpr auto kFileLook = milliseconds(300);

std::string_view type_of(std::string_view file) {
  if (file.ends_with(".html")) return "text/html; charset=utf-8";
  if (file.ends_with(".js")) return "text/javascript; charset=utf-8";
  if (file.ends_with(".css")) return "text/css; charset=utf-8";
  return "application/octet-stream";
}

const PageFile* page_file(std::string_view name) {
  const auto files = page_files();
  const auto at = std::find_if(files.begin(), files.end(),
                               [&](const PageFile& file) { return file.name == name; });
  return at == files.end() ? nullptr : &*at;
}

using Response = http::response<http::string_body>;

Response response_to(http::status status, std::string_view type, std::string body) {
  Response response{status, 11};
  response.set(http::field::content_type, boost::beast::string_view(type.data(), type.size()));
  response.set(http::field::cache_control, "no-store");
  response.set("Content-Security-Policy",
               "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; "
               "img-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'");
  response.set("X-Content-Type-Options", "nosniff");
  response.set("Referrer-Policy", "no-referrer");
  response.set("Cross-Origin-Resource-Policy", "same-origin");
  response.keep_alive(false);
  response.body() = std::move(body);
  response.prepare_payload();
  return response;
}

std::string_view view_of(boost::beast::string_view text) {
  return {text.data(), text.size()};
}

}  // namespace

/// All that is open, and the clock of the play.
class Server::Inside {
 public:
  Inside(Session& session, Options options) : session_(session), options_(std::move(options)) {
    listen();
  }

  std::uint16_t port() const { return port_; }
  const std::string& secret() const { return options_.secret; }

  void run() {
    for (const auto& acceptor : acceptors_) accept(*acceptor);
    look_at_files();
    // A handler that throws ends `run`. The other handlers must go on.
    while (!attempt([this] { context_.run(); })) {
    }
  }
  void stop() {
    asio::post(context_, [this] { context_.stop(); });
  }

 private:
  class Visitor;
  class Talk;

  void listen() {
    acceptors_.push_back(std::make_unique<tcp::acceptor>(context_));
    ErrorCode fault;
    open(*acceptors_[0], {asio::ip::address_v4::loopback(), options_.port}, fault);
    if (fault) {
      throw std::runtime_error(
          fmt::format("port {} cannot be taken: {}", options_.port, fault.message()));
    }
    port_ = acceptors_[0]->local_endpoint().port();
    // Where there is no second address, the first is enough.
    auto second = std::make_unique<tcp::acceptor>(context_);
    open(*second, {asio::ip::address_v6::loopback(), port_}, fault);
    if (!fault) acceptors_.push_back(std::move(second));
  }

  static void open(tcp::acceptor& acceptor, const tcp::endpoint& at, ErrorCode& fault) {
    acceptor.open(at.protocol(), fault);
    if (!fault) acceptor.set_option(asio::socket_base::reuse_address(true), fault);
    if (!fault && at.protocol() == tcp::v6()) acceptor.set_option(asio::ip::v6_only(true), fault);
    if (!fault) acceptor.bind(at, fault);
    if (!fault) acceptor.listen(asio::socket_base::max_listen_connections, fault);
  }

  void accept(tcp::acceptor& acceptor);
  bool close_idle_visitor();

  void log(const std::string& what) {
    if (logged_.insert(what).second && options_.log) options_.log(what + " was refused");
  }

  void look_at_files() {
    file_timer_.expires_after(kFileLook);
    file_timer_.async_wait([this](ErrorCode fault) {
      if (fault) return;
      if (!talks_.empty()) {
        const int before = session_.revisions().faults;
        attempt([this] { session_.look_at_files(); });
        const int checks = session_.checker().revision();
        if (session_.revisions().faults != before || checks != told_checks_) tell_all();
        told_checks_ = checks;
      }
      look_at_files();
    });
  }

  // Plays as long as somebody looks.
  void keep_playing() {
    if (is_ticking_ || !session_.is_playing() || talks_.empty()) return;
    is_ticking_ = true;
    last_ = Clock::now();
    tick_later();
  }
  void tick_later() {
    tick_timer_.expires_at(std::max(Clock::now(), last_ + kFrame));
    tick_timer_.async_wait([this](ErrorCode fault) {
      if (!fault) tick();
    });
  }
  void tick() {
    is_ticking_ = session_.is_playing() && !talks_.empty();
    if (!is_ticking_) return;
    const auto now = Clock::now();
    const double seconds_gone = std::chrono::duration<double>(now - last_).count();
    if (!attempt([&] { session_.advance(seconds_gone); })) session_.pause();
    last_ = now;
    tell_all();
    tick_later();
  }

  void tell_all();
  /// Calls a function. Reports what it throws to all pages. @return Whether it threw nothing.
  template <typename Do>
  bool attempt(Do&& what) {
    try {
      what();
      return true;
    } catch (const std::exception& error) {
      refuse_all(error.what());
      return false;
    }
  }
  void refuse_all(const std::string& why);

  Session& session_;
  Options options_;
  std::uint16_t port_ = 0;
  asio::io_context context_{1};
  std::vector<std::unique_ptr<tcp::acceptor>> acceptors_;
  asio::steady_timer tick_timer_{context_};
  asio::steady_timer file_timer_{context_};
  Clock::time_point last_{};
  bool is_ticking_ = false;
  std::size_t open_ = 0;
  int told_checks_ = 0;
  std::set<std::string> logged_;
  std::vector<std::shared_ptr<Talk>> talks_;
  std::vector<std::weak_ptr<Visitor>> visitors_;  ///< Oldest first.
};

/// A page that is open: what it says is heard, and what is new is told, one message after another.
/// A page that takes its messages slowly gets fewer.
class Server::Inside::Talk : public std::enable_shared_from_this<Talk> {
 public:
  Talk(Inside& server, tcp::socket socket)
      : server_(server), stream_(std::move(socket)), conversation_(server.session_) {
    ++server_.open_;
  }
  ~Talk() { --server_.open_; }
  Talk(const Talk&) = delete;
  Talk& operator=(const Talk&) = delete;

  void begin(const http::request<http::empty_body>& request) {
    auto timeout = websocket::stream_base::timeout::suggested(beast::role_type::server);
    timeout.idle_timeout = seconds(30);
    timeout.keep_alive_pings = true;
    stream_.set_option(timeout);
    stream_.read_message_max(kMostMessage);
    stream_.async_accept(request, [self = shared_from_this()](ErrorCode fault) {
      if (fault) return;
      self->server_.talks_.push_back(self);
      self->tell();
      self->server_.keep_playing();
      self->read();
    });
  }

  void tell() {
    if (!sending_.empty()) return;
    try {
      for (Said& said : conversation_.speak()) sending_.push_back(std::move(said));
    } catch (const std::exception& error) {
      conversation_.refuse(on_one_line(error.what()));
    }
    if (!sending_.empty()) send();
  }

 private:
  void read() {
    is_reading_ = true;
    stream_.async_read(buffer_, [self = shared_from_this()](ErrorCode fault, std::size_t) {
      self->is_reading_ = false;
      if (fault) return self->leave(fault);
      self->hear();
    });
  }
  void hear() {
    const std::string text = beast::buffers_to_string(buffer_.data());
    buffer_.consume(buffer_.size());
    conversation_.hear(text);
    server_.tell_all();
    server_.keep_playing();
    read_on();
  }
  // Reads no more messages while the page does not receive the answers to earlier ones.
  void read_on() {
    const bool is_full = conversation_.answer_count() >= kMostAnswers;
    if (is_full || is_reading_) return;
    read();
  }
  void send() {
    stream_.binary(sending_.front().is_binary);
    stream_.async_write(asio::buffer(sending_.front().bytes),
                        [self = shared_from_this()](ErrorCode fault, std::size_t) {
                          if (fault) return self->leave(fault);
                          self->sending_.pop_front();
                          if (!self->sending_.empty()) return self->send();
                          if (std::exchange(self->has_news_, false)) self->tell();
                          self->read_on();
                        });
  }
  void leave(ErrorCode fault) {
    if (fault == websocket::error::message_too_big) server_.log("a message above 64 kB");
    std::erase(server_.talks_, shared_from_this());
    sending_.clear();
  }

 public:
  void refuse(const std::string& why) {
    conversation_.refuse(on_one_line(why));
    note_news();
  }

  /// Something is new; told at once, or as soon as what is on its way has been taken.
  void note_news() {
    has_news_ = !sending_.empty();
    tell();
  }

 private:
  Inside& server_;
  websocket::stream<beast::tcp_stream> stream_;
  Conversation conversation_;
  beast::flat_buffer buffer_;
  std::deque<Said> sending_;
  bool has_news_ = false;
  bool is_reading_ = false;
};

/// Somebody who has come, until it is known what for.
class Server::Inside::Visitor : public std::enable_shared_from_this<Visitor> {
 public:
  Visitor(Inside& server, tcp::socket socket) : server_(server), stream_(std::move(socket)) {
    ++server_.open_;
  }
  ~Visitor() { --server_.open_; }
  Visitor(const Visitor&) = delete;
  Visitor& operator=(const Visitor&) = delete;

  void begin() {
    parser_.header_limit(kMostHeader);
    parser_.body_limit(0);
    stream_.expires_after(server_.options_.patience);
    http::async_read(
        stream_, buffer_, parser_, [self = shared_from_this()](ErrorCode fault, std::size_t) {
          if (!fault) return self->answer();
          if (fault == http::error::end_of_stream || fault == asio::error::operation_aborted)
            return;
          self->server_.log(fault == beast::error::timeout ? "a connection that asked nothing"
                                                           : "a request that is none");
        });
  }

  /// Returns whether it has not requested anything yet.
  bool is_idle() const { return !has_asked_; }
  void close() {
    ErrorCode ignored;
    stream_.socket().close(ignored);
  }

 private:
  void answer() {
    has_asked_ = true;
    const auto& request = parser_.get();
    const bool wants_talk = websocket::is_upgrade(request);
    const Admission admission =
        admit({view_of(request[http::field::host]), view_of(request[http::field::origin]),
               view_of(request.target()), request.method() == http::verb::get, wants_talk},
              server_.port_, server_.secret());
    if (!admission.refusal.empty()) {
      server_.log(admission.refusal);
      return send(response_to(http::status::forbidden, "text/plain", "refused\n"));
    }
    if (admission.is_talk) {
      stream_.expires_never();
      std::make_shared<Talk>(server_, stream_.release_socket())->begin(request);
      return;
    }
    const PageFile* file = page_file(admission.file);
    if (file == nullptr) {
      return send(response_to(http::status::not_found, "text/plain", "there is no such file\n"));
    }
    send(response_to(http::status::ok, type_of(file->name), std::string(file->text)));
  }

  void send(Response response) {
    response_ = std::move(response);
    stream_.expires_after(server_.options_.patience);
    http::async_write(stream_, response_, [self = shared_from_this()](ErrorCode, std::size_t) {
      ErrorCode ignored;
      self->stream_.socket().shutdown(tcp::socket::shutdown_both, ignored);
    });
  }

  Inside& server_;
  beast::tcp_stream stream_;
  beast::flat_buffer buffer_{kMostHeader};
  http::request_parser<http::empty_body> parser_;
  Response response_;
  bool has_asked_ = false;
};

// Closes the oldest connection that has not requested anything, to make room for a new one.
bool Server::Inside::close_idle_visitor() {
  const auto oldest = std::find_if(visitors_.begin(), visitors_.end(), [](const auto& one) {
    const auto visitor = one.lock();
    return visitor && visitor->is_idle();
  });
  if (oldest == visitors_.end()) return false;
  oldest->lock()->close();
  visitors_.erase(oldest);
  return true;
}

void Server::Inside::accept(tcp::acceptor& acceptor) {
  acceptor.async_accept([this, &acceptor](ErrorCode fault, tcp::socket socket) {
    if (fault == asio::error::operation_aborted) return;
    if (!fault) {
      if (open_ >= kMostConnections && !close_idle_visitor()) {
        log(fmt::format("a connection beyond {}", kMostConnections));
        ErrorCode ignored;
        socket.close(ignored);
      } else {
        socket.set_option(tcp::no_delay(true), fault);
        const auto visitor = std::make_shared<Visitor>(*this, std::move(socket));
        std::erase_if(visitors_, [](const auto& one) { return one.expired(); });
        visitors_.push_back(visitor);
        visitor->begin();
      }
    }
    accept(acceptor);
  });
}

void Server::Inside::refuse_all(const std::string& why) {
  for (const auto& talk : std::vector(talks_)) talk->refuse(why);
}

void Server::Inside::tell_all() {
  const auto talks = talks_;
  for (const auto& talk : talks) talk->note_news();
}

Server::Server(Session& session, Options options)
    : inside_(std::make_unique<Inside>(session, std::move(options))) {}
Server::~Server() = default;

std::string Server::address() const {
  return fmt::format("http://127.0.0.1:{}/{}/", inside_->port(), inside_->secret());
}
std::uint16_t Server::port() const {
  return inside_->port();
}
void Server::run() {
  inside_->run();
}
void Server::stop() {
  inside_->stop();
}

}  // namespace gaze::serve
