#include "serve/server.hpp"

#include <fmt/format.h>

#include <array>
#include <atomic>
#include <boost/asio/connect.hpp>
#include <boost/asio/ip/tcp.hpp>
#include <boost/beast/core.hpp>
#include <boost/beast/http.hpp>
#include <boost/beast/websocket.hpp>
#include <fstream>
#include <mutex>
#include <nlohmann/json.hpp>
#include <set>
#include <thread>

#include "scenes.hpp"
#include "support/levels.hpp"

/// The server through real sockets, as browsers and others come to it.
namespace gaze::serve {
namespace {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
namespace websocket = beast::websocket;
using tcp = asio::ip::tcp;

constexpr const char* kPageSecret = "00112233445566778899aabbccddeeff";

class Served : public ::testing::Test {
 protected:
  Served() {
    thread_ = std::thread([this] { server_.run(); });
  }
  ~Served() override {
    server_.stop();
    thread_.join();
  }

  std::string own() const { return fmt::format("127.0.0.1:{}", server_.port()); }

  tcp::socket connected(const char* address = "127.0.0.1") {
    tcp::socket socket(context_);
    socket.connect({asio::ip::make_address(address), server_.port()});
    return socket;
  }

  http::response<http::string_body> get(const std::string& target, const std::string& host,
                                        const std::string& origin = "",
                                        http::verb method = http::verb::get) {
    tcp::socket socket = connected();
    http::request<http::empty_body> request{method, target, 11};
    request.set(http::field::host, host);
    if (!origin.empty()) request.set(http::field::origin, origin);
    http::write(socket, request);
    beast::flat_buffer buffer;
    http::response<http::string_body> response;
    boost::system::error_code fault;
    http::read(socket, buffer, response, fault);
    return response;
  }

  using Socket = websocket::stream<tcp::socket>;
  std::unique_ptr<Socket> talk(const std::string& origin, boost::system::error_code& fault,
                               const std::string& secret = kPageSecret) {
    auto socket = std::make_unique<Socket>(connected());
    socket->set_option(websocket::stream_base::decorator([&](websocket::request_type& request) {
      if (!origin.empty()) request.set(http::field::origin, origin);
    }));
    socket->handshake(own(), "/" + secret + "/talk", fault);
    return socket;
  }
  std::unique_ptr<Socket> talk() {
    boost::system::error_code fault;
    auto socket = talk("http://" + own(), fault);
    EXPECT_FALSE(fault) << fault.message();
    return socket;
  }

  // Reads until a message of that name comes.
  static nlohmann::json heard(Socket& socket, const std::string& name) {
    for (int i = 0; i < 2000; ++i) {
      beast::flat_buffer buffer;
      socket.read(buffer);
      if (socket.got_binary()) continue;
      auto json = nlohmann::json::parse(beast::buffers_to_string(buffer.data()));
      if (json["tell"] == name) return json;
    }
    ADD_FAILURE() << "no message " << name;
    return {};
  }
  static void say(Socket& socket, const nlohmann::json& message) {
    socket.text(true);
    socket.write(asio::buffer(message.dump()));
  }

  Server::Options options() {
    Server::Options options;
    options.secret = kPageSecret;
    options.patience = std::chrono::milliseconds(400);
    options.log = [this](const std::string& what) {
      const std::scoped_lock lock(mutex_);
      logged_.insert(what);
    };
    return options;
  }

  std::multiset<std::string> logged() {
    const std::scoped_lock lock(mutex_);
    return logged_;
  }

 private:
  Session session_{GAZE_DEMO, {}, [](const std::filesystem::path&, const std::string&) {}};
  std::mutex mutex_;
  std::multiset<std::string> logged_;
  Server server_{session_, options()};
  asio::io_context context_;
  std::thread thread_;
};

TEST_F(Served, GivesItsPageToWhoKnowsTheSecret) {
  const auto page = get(fmt::format("/{}/", kPageSecret), own());
  EXPECT_EQ(page.result(), http::status::ok);
  EXPECT_NE(page.body().find("<title>Gaze</title>"), std::string::npos);
  EXPECT_NE(page["Content-Security-Policy"].find("default-src 'none'"), beast::string_view::npos);
  EXPECT_EQ(page["X-Content-Type-Options"], "nosniff");
  EXPECT_EQ(get(fmt::format("/{}/main.js", kPageSecret), own()).result(), http::status::ok);
  for (const char* file : {"nothing.js", "../propagation_house.toml", "..%2f..%2fetc%2fpasswd",
                           "/etc/passwd", "index.html/", "%00"}) {
    const auto other = get(fmt::format("/{}/{}", kPageSecret, file), own());
    EXPECT_EQ(other.result(), http::status::not_found) << file;
    EXPECT_EQ(other.body(), "there is no such file\n");
  }
}

TEST_F(Served, TurnsAwayWhoHasNoBusinessThere) {
  const std::string page = fmt::format("/{}/", kPageSecret);
  EXPECT_EQ(get("/", own()).result(), http::status::forbidden);
  EXPECT_EQ(get("/00112233445566778899aabbccddeef0/", own()).result(), http::status::forbidden);
  EXPECT_EQ(get(page, "attacker.example").result(), http::status::forbidden);
  EXPECT_EQ(get(page, own(), "http://attacker.example").result(), http::status::forbidden);
  EXPECT_EQ(get(page, own(), "", http::verb::post).result(), http::status::forbidden);
  boost::system::error_code fault;
  static_cast<void>(talk("http://attacker.example", fault));
  EXPECT_TRUE(fault);
  static_cast<void>(talk("", fault));
  EXPECT_TRUE(fault);
  static_cast<void>(talk("http://" + own(), fault, "00"));
  EXPECT_TRUE(fault);
  for (int i = 0; i < 5; ++i) static_cast<void>(get("/", own()));
  // Each sort is told once.
  const auto told = logged();
  EXPECT_EQ(told.count("a request without the secret was refused"), 1U);
  EXPECT_EQ(told.count("a request for another host was refused"), 1U);
  EXPECT_EQ(told.count("a request by a page of another origin was refused"), 1U);
  EXPECT_EQ(told.count("a talk without an origin was refused"), 1U);
  EXPECT_EQ(heard(*talk(), "level")["name"], "Propagation house, after closing");
}

TEST_F(Served, PlaysForAPage) {
  auto page = talk();
  static_cast<void>(heard(*page, "level"));
  say(*page, {{"do", "pace"}, {"pace", 8}});
  say(*page, {{"do", "play"}});
  std::int64_t tick = 0;
  while (tick < 60) tick = heard(*page, "state")["tick"];
  say(*page, {{"do", "pause"}});
  while (heard(*page, "state")["is_playing"] == true) continue;
  SUCCEED();
}

TEST_F(Served, TwoPagesSeeOnePlay) {
  auto one = talk();
  auto other = talk();
  static_cast<void>(heard(*one, "state"));
  static_cast<void>(heard(*other, "state"));
  say(*one, {{"do", "step"}, {"ticks", 7}});
  EXPECT_EQ(heard(*other, "state")["tick"], 7);
  say(*other, {{"do", "try"}, {"path", "kind.pruner.sight.range"}, {"value", "6"}});
  EXPECT_EQ(heard(*one, "level")["name"], "Propagation house, after closing");
  EXPECT_EQ(heard(*one, "values")["tried"][0]["path"], "kind.pruner.sight.range");
}

TEST_F(Served, RefusesFramesBeyondItsSize) {
  auto page = talk();
  static_cast<void>(heard(*page, "state"));
  boost::system::error_code fault;
  page->binary(true);
  const std::string large(100'000'000, 'x');
  page->write(asio::buffer(large), fault);
  beast::flat_buffer buffer;
  while (!fault) page->read(buffer, fault);
  EXPECT_EQ(heard(*talk(), "state")["tick"], 0);
  EXPECT_EQ(logged().count("a message above 64 kB was refused"), 1U);
}

// Connections that are opened and never ask, or stop in the midst of a request, are given up.
TEST_F(Served, GivesUpWhoAsksNothing) {
  std::vector<tcp::socket> crowd;
  for (int i = 0; i < 20; ++i) {
    crowd.push_back(connected());
    if (i % 2 == 0) asio::write(crowd.back(), asio::buffer(std::string("GET / HTTP/1.1\r\nHo")));
  }
  for (tcp::socket& socket : crowd) {
    boost::system::error_code fault;
    std::array<char, 64> bytes{};
    while (!fault) socket.read_some(asio::buffer(bytes), fault);
    EXPECT_TRUE(fault == asio::error::eof || fault == asio::error::connection_reset)
        << fault.message();
  }
  // The connection is closed just before that is logged.
  const std::string refused = "a connection that asked nothing was refused";
  for (int i = 0; i < 100 && logged().count(refused) == 0; ++i) {
    std::this_thread::sleep_for(std::chrono::milliseconds(20));
  }
  EXPECT_EQ(logged().count(refused), 1U);
  // A page that is let in may be silent for as long as it likes.
  auto page = talk();
  static_cast<void>(heard(*page, "state"));
  std::this_thread::sleep_for(std::chrono::milliseconds(900));
  say(*page, {{"do", "step"}, {"ticks", 5}});
  EXPECT_EQ(heard(*page, "state")["tick"], 5);
}

TEST_F(Served, BearsAThousandConnections) {
  auto page = talk();
  static_cast<void>(heard(*page, "state"));
  std::vector<tcp::socket> crowd;
  for (int i = 0; i < 1000; ++i) {
    try {
      crowd.push_back(connected());
    } catch (const boost::system::system_error&) {
      break;  // this process has no more
    }
  }
  EXPECT_GT(crowd.size(), 200U);
  say(*page, {{"do", "step"}, {"ticks", 3}});
  EXPECT_EQ(heard(*page, "state")["tick"], 3);
  // An idle connection is closed for a new page.
  boost::system::error_code refused;
  const auto second = talk("http://" + own(), refused);
  EXPECT_FALSE(refused) << refused.message();
  // Pages that are served are not closed for a new one.
  std::vector<std::decay_t<decltype(page)>> pages;
  // On a slow machine some time out meanwhile.
  while (!refused && pages.size() < 1000) pages.push_back(talk("http://" + own(), refused));
  EXPECT_TRUE(refused);
  EXPECT_GE(pages.size(), 64U - 2U);
  EXPECT_EQ(logged().count("a connection beyond 64 was refused"), 1U);
  pages.clear();
  crowd.clear();
  for (int i = 0; i < 100; ++i) {  // those who have gone leave room
    boost::system::error_code fault;
    static_cast<void>(talk("http://" + own(), fault));
    if (!fault) return;
    std::this_thread::sleep_for(std::chrono::milliseconds(20));
  }
  FAIL() << "nobody gets in any more";
}

// Bytes that are no request and no frame, from a page that has been let in and from others.
TEST_F(Served, GoesOnWhateverComes) {
  scenes::Random random(3);
  for (std::uint64_t i = 0; i < testing::rounds(120); ++i) {
    std::string bytes;
    for (std::uint64_t left = random.next() % 400; left > 0; --left) {
      bytes.push_back(static_cast<char>(random.next()));
    }
    boost::system::error_code fault;
    if (random.next() % 2 == 0) {
      tcp::socket socket = connected();
      if (random.next() % 2 == 0) bytes = "GET / HTTP/1.1\r\nHost: " + bytes;
      asio::write(socket, asio::buffer(bytes), fault);
    } else {
      auto page = talk("http://" + own(), fault);
      if (!fault) asio::write(page->next_layer(), asio::buffer(bytes), fault);
    }
  }
  auto page = talk();
  say(*page, {{"do", "step"}, {"ticks", 2}});
  std::int64_t tick = 0;
  for (int i = 0; i < 50 && tick != 2; ++i) tick = heard(*page, "state")["tick"];
  EXPECT_EQ(tick, 2);
}

// An impossible deed is refused, and the run continues.
TEST_F(Served, RefusesAThrowOutOfTheWorldAndPlaysOn) {
  auto page = talk();
  static_cast<void>(heard(*page, "state"));
  for (const double x : {20001.0, -1e300, 1e9}) {
    say(*page, {{"do", "hand"}, {"agent", "collector"}, {"what", "throw"}, {"place", {x, 0.0}}});
    EXPECT_NE(heard(*page, "refused")["why"].get<std::string>().find("place"), std::string::npos);
  }
  say(*page, {{"do", "play"}});
  std::int64_t tick = 0;
  for (int i = 0; i < 200 && tick < 20; ++i) tick = heard(*page, "state")["tick"];
  EXPECT_GE(tick, 20);
}

// Returns whether a sanitizer adds memory to that of the program.
bool watches_memory() {
#if defined(__has_feature)
#if __has_feature(thread_sanitizer)
  return true;
#endif
#endif
  return testing::is_sanitized();
}

// Resident memory of this process, megabytes.
double megabytes() {
  std::ifstream status("/proc/self/statm");
  double whole = 0.0;
  double resident = 0.0;
  status >> whole >> resident;
  return resident * 4096.0 / 1e6;
}

// The server stops reading from a page that receives nothing. Other pages are served.
TEST_F(Served, DoesNotGrowForAPageThatDoesNotRead) {
  auto deaf = talk();
  const double before = megabytes();
  std::atomic<bool> is_over = false;
  std::thread sender([&] {
    const std::string message = R"({"do":")" + std::string(20'000, 'x') + "\"}";
    boost::system::error_code fault;
    deaf->next_layer().non_blocking(true, fault);
    for (int i = 0; i < 20'000 && !fault && !is_over; ++i) {
      deaf->text(true);
      deaf->write(asio::buffer(message), fault);  // blocks or fails once the server stops reading
    }
  });
  auto page = talk();
  for (int i = 1; i <= 30; ++i) {
    say(*page, {{"do", "step"}, {"ticks", 1}});
    std::int64_t tick = 0;
    for (int k = 0; k < 200 && tick < i; ++k) tick = heard(*page, "state")["tick"];
    EXPECT_EQ(tick, i);
  }
  is_over = true;
  sender.join();
  EXPECT_LT(megabytes() - before, watches_memory() ? 400.0 : 60.0);
}

TEST_F(Served, AnotherTakesAnotherPort) {
  Session session(GAZE_DEMO, {}, [](const std::filesystem::path&, const std::string&) {});
  const auto port = static_cast<std::uint16_t>(std::stoi(own().substr(own().find(':') + 1)));
  Server::Options options;
  options.secret = kPageSecret;
  options.port = port;
  EXPECT_THROW(Server(session, options), std::runtime_error);
  options.port = 0;
  const Server other(session, options);
  EXPECT_NE(other.port(), port);
  EXPECT_EQ(other.address(), fmt::format("http://127.0.0.1:{}/{}/", other.port(), kPageSecret));
}

}  // namespace
}  // namespace gaze::serve
