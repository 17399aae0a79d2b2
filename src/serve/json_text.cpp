#include "serve/json_text.hpp"

#include <nlohmann/json.hpp>

namespace gaze::serve {

std::string json_text(const nlohmann::ordered_json& json) {
  return json.dump(-1, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

}  // namespace gaze::serve
