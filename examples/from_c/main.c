/* Gaze from C: a guard that is spawned, a player that the program moves, what is noticed, and a save that goes on to
 * the same game. */
#include <gaze/gaze.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

static const char level_text[] =
    "[team.caretakers]\nhostile = [\"visitors\"]\n[team.visitors]\n"
    "[[wall]]\nid = \"hedge\"\nmaterial = \"brick\"\npath = [[3.0, -2.0], [3.0, 2.0]]\n"
    "[kind.pruner]\nteam = \"caretakers\"\n"
    "[kind.pruner.sight]\nrange = 8.0\nfield_of_view = 120.0\n"
    "[kind.pruner.move]\nspeed = 2.0\n"
    "[kind.pruner.when]\nsees = \"chase\"\n"
    "[kind.collector]\nteam = \"visitors\"\n"
    "[[agent]]\nid = \"player\"\nkind = \"collector\"\nat = [6.0, 6.0]\ndriver = \"host\"\n";

static gaze_text words(const char* text) {
  gaze_text made = {text, strlen(text)};
  return made;
}

static void need(gaze_status status) {
  if (status == GAZE_OK) return;
  gaze_text why = gaze_why();
  fprintf(stderr, "%.*s\n", (int)why.length, why.at);
  exit(1);
}

static void tell(const gaze_game* game) {
  gaze_event events[32];
  size_t count = 0;
  events[0].size = sizeof(gaze_event);
  need(gaze_events(game, events, 32, sizeof(gaze_event), &count));
  for (size_t i = 0; i < count; ++i) {
    char line[160];
    size_t length = 0;
    need(gaze_describe(game, i, line, sizeof line, &length));
    printf("%6.3f s  %.*s\n", gaze_seconds(game), (int)length, line);
  }
}

int main(void) {
  const gaze_agent nobody = {GAZE_NOBODY_INDEX, 0};
  gaze_level* level;
  gaze_prepared* prepared;
  gaze_game* game;
  gaze_agent player, pruner;
  need(gaze_level_parse(words(level_text), words("from_c"), &level));
  need(gaze_prepare(level, &prepared));
  need(gaze_begin(prepared, &game));
  need(gaze_find(game, words("player"), &player));

  gaze_pose start = {{0.0, 0.0, 0.0}, 0.0};
  need(gaze_spawn(game, words("pruner"), start, words("pruner-1"), 0, &pruner));

  /* The player walks down behind the hedge and out of its shelter. */
  gaze_pose pose = {{6.0, 6.0, 0.0}, 270.0};
  for (int i = 0; i < 120; ++i) {
    pose.position.y -= 0.04;
    need(gaze_set_poses(game, &player, 1, &pose, sizeof pose));
    need(gaze_step(game));
    tell(game);
  }

  char why[2048];
  size_t length = 0;
  need(gaze_explain(game, pruner, player, why, sizeof why, &length));
  printf("%.*s\n", (int)length, why);

  need(gaze_save(game, NULL, 0, &length) == GAZE_ROOM ? GAZE_OK : GAZE_FAILED);
  void* save = malloc(length);
  need(gaze_save(game, save, length, &length));
  need(gaze_hurt(game, pruner, 1000.0, nobody, NULL));
  need(gaze_restore(game, save, length));
  gaze_state state = {.size = sizeof state};
  need(gaze_states(game, &pruner, 1, &state, sizeof state));
  printf("pruner-1 has %g health again, at %.2f, %.2f\n", state.health, state.position.x, state.position.y);

  free(save);
  gaze_game_free(game);
  gaze_prepared_free(prepared);
  gaze_level_free(level);
  return 0;
}
