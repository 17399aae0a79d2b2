#pragma once

#include <algorithm>
#include <cstring>
#include <new>
#include <string>
#include <string_view>

#include "c/handles.hpp"
#include "gaze/error.hpp"

/// What all calls of the C interface have in common: nothing is thrown out of them, and words and
/// lists are handed over in one way.
namespace gaze::c {

/// Keeps why a call was refused, for `gaze_why`.
gaze_status refuse(gaze_status status, std::string_view why) noexcept;

/// Does what a call is for; what is thrown becomes a status.
template <typename Do>
gaze_status guarded(Do&& what) noexcept {
  try {
    return what();
  } catch (const LevelError& error) {
    return refuse(GAZE_LEVEL, error.what());
  } catch (const SaveError& error) {
    return refuse(GAZE_SAVE, error.what());
  } catch (const UsageError& error) {
    return refuse(GAZE_USAGE, error.what());
  } catch (const std::bad_alloc&) {
    return refuse(GAZE_MEMORY, "there is no memory left");
  } catch (const std::exception& error) {
    return refuse(GAZE_FAILED, error.what());
  } catch (...) {
    return refuse(GAZE_FAILED, "something unknown was thrown");
  }
}

/// Throws UsageError for a null pointer where something is needed.
template <typename T>
T& need(T* pointer, const char* what) {
  if (pointer == nullptr) throw UsageError(std::string(what) + " is null");
  return *pointer;
}

inline Simulation& game_of(gaze_game* game) {
  return need(game, "the game").simulation;
}
inline const Simulation& game_of(const gaze_game* game) {
  return need(game, "the game").simulation;
}

inline std::string_view words(const gaze_text& text) {
  if (text.length > 0) need(text.at, "a text");
  return {text.length > 0 ? text.at : "", text.length};
}
inline gaze_text text_of(std::string_view words) {
  return {words.data(), words.size()};
}
inline Vector3d vector_of(const gaze_vector& v) {
  return {v.x, v.y, v.z};
}
inline gaze_vector vector_of(const Vector3d& v) {
  return {v.x(), v.y(), v.z()};
}
inline AgentId id_of(const gaze_agent& agent) {
  return {agent.index, agent.generation};
}
inline gaze_agent agent_of(AgentId id) {
  return {id.index, id.generation};
}
inline gaze_agent agent_of(const std::optional<AgentId>& id) {
  return agent_of(id.value_or(AgentId{}));
}
inline std::optional<AgentId> maybe(const gaze_agent& agent) {
  if (agent.index == kNobody) return std::nullopt;
  return id_of(agent);
}

/// Fills a struct of the host's, whose size it has set, with as much as it knows of.
template <typename T>
void fill(T* to, std::size_t size, T values) {
  if (size < sizeof(std::size_t) || size > 65536) {
    throw UsageError("a struct whose size is not set; it is sizeof the struct");
  }
  values.size = size;
  std::memcpy(static_cast<void*>(to), &values, std::min(size, sizeof(T)));
}

template <typename T>
void fill(T* to, const T& values) {
  T& target = need(to, "what is to be filled");
  fill(&target, target.size, values);
}

template <typename T>
T* at(T* first, std::size_t number, std::size_t stride) {
  using Byte = std::conditional_t<std::is_const_v<T>, const std::byte, std::byte>;
  return reinterpret_cast<T*>(reinterpret_cast<Byte*>(first) + number * stride);
}

/// Throws UsageError for a stride that would lay one item over the other.
inline void need_stride(std::size_t count, std::size_t stride, std::size_t size) {
  if (count > 1 && stride < size) throw UsageError("a stride below the size of an item");
}

/// A list of so many items into a list of the host's with room for some.
template <typename T, typename Make>
gaze_status fill_list(std::size_t count, T* list, std::size_t room, std::size_t stride,
                      std::size_t* told, Make&& make) {
  need(told, "the count") = count;
  if (count > room) return refuse(GAZE_ROOM, "the list is longer than the room for it");
  if (count == 0) return GAZE_OK;
  const std::size_t size = need(list, "the list").size;
  need_stride(count, stride, size);
  for (std::size_t i = 0; i < count; ++i) fill(at(list, i, stride), size, make(i));
  return GAZE_OK;
}

/// Bytes into a place of the host's with room for some.
gaze_status give_bytes(const void* bytes, std::size_t count, void* to, std::size_t room,
                       std::size_t* length);

}  // namespace gaze::c
