#include "c/host_rays.hpp"
#include "gaze/level_file.hpp"

/// Levels, and games begun from them, saved and copied.
using namespace gaze;
using namespace gaze::c;

gaze_status gaze_level_read(gaze_text file, gaze_level** level) {
  return guarded([&] {
    need(level, "where the level goes") = nullptr;
    *level = new gaze_level{read_level(std::filesystem::path(std::string(words(file))))};
    return GAZE_OK;
  });
}

gaze_status gaze_level_parse(gaze_text text, gaze_text name, gaze_level** level) {
  return guarded([&] {
    need(level, "where the level goes") = nullptr;
    *level = new gaze_level{read_level_text(words(text), std::string(words(name)))};
    return GAZE_OK;
  });
}

void gaze_level_free(gaze_level* level) {
  delete level;
}

gaze_status gaze_prepare(const gaze_level* level, gaze_prepared** prepared) {
  return guarded([&] {
    need(prepared, "where the prepared level goes") = nullptr;
    *prepared = new gaze_prepared{Prepared(need(level, "the level").level)};
    return GAZE_OK;
  });
}

void gaze_prepared_free(gaze_prepared* prepared) {
  delete prepared;
}

gaze_status gaze_begin(const gaze_prepared* prepared, gaze_game** game) {
  return guarded([&] {
    need(game, "where the game goes") = nullptr;
    *game = new gaze_game{Simulation(need(prepared, "the prepared level").prepared)};
    return GAZE_OK;
  });
}

gaze_status gaze_begin_in(const gaze_prepared* prepared, gaze_rays rays, void* host,
                          gaze_game** game) {
  return guarded([&] {
    need(game, "where the game goes") = nullptr;
    if (rays == nullptr) throw UsageError("the ray function is null");
    *game = new gaze_game{Simulation(need(prepared, "the prepared level").prepared,
                                     std::make_shared<const HostRays>(rays, host))};
    return GAZE_OK;
  });
}

gaze_status gaze_copy(const gaze_game* game, gaze_game** copy) {
  return guarded([&] {
    need(copy, "where the copy goes") = nullptr;
    *copy = new gaze_game{game_of(game)};
    return GAZE_OK;
  });
}

gaze_status gaze_assign(gaze_game* to, const gaze_game* from) {
  return guarded([&] {
    game_of(to) = game_of(from);
    return GAZE_OK;
  });
}

void gaze_game_free(gaze_game* game) {
  delete game;
}

gaze_status gaze_step(gaze_game* game) {
  return guarded([&] {
    game_of(game).step();
    return GAZE_OK;
  });
}

gaze_status gaze_advance(gaze_game* game, double seconds, int32_t most_steps, gaze_advanced* done) {
  return guarded([&] {
    if (done != nullptr) fill(done, gaze_advanced{});  // its size is right before anything is done
    const Advance advance = game_of(game).advance(seconds, most_steps);
    if (done != nullptr) {
      fill(done, gaze_advanced{0, advance.steps, advance.left_over, advance.lost_seconds});
    }
    return GAZE_OK;
  });
}

int64_t gaze_tick(const gaze_game* game) {
  return game == nullptr ? -1 : game->simulation.tick();
}

double gaze_seconds(const gaze_game* game) {
  return game == nullptr ? -1.0 : game->simulation.seconds();
}

int32_t gaze_is_over(const gaze_game* game) {
  return game != nullptr && game->simulation.is_over();
}

gaze_status gaze_save(const gaze_game* game, void* bytes, size_t room, size_t* length) {
  return guarded([&] {
    const std::vector<std::byte> save = game_of(game).save();
    return give_bytes(save.data(), save.size(), bytes, room, length);
  });
}

gaze_status gaze_restore(gaze_game* game, const void* bytes, size_t length) {
  return guarded([&] {
    const auto* first = static_cast<const std::byte*>(bytes);
    if (length > 0) need(first, "the save");
    game_of(game).restore({first, length});
    return GAZE_OK;
  });
}

gaze_status gaze_digest(const gaze_game* game, uint64_t* digest) {
  return guarded([&] {
    need(digest, "where the digest goes") = game_of(game).digest();
    return GAZE_OK;
  });
}
