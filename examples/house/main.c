/* A little game of the propagation house: slip in, take a look at the orchid, get out.
 *
 *     house LEVEL [SECONDS]
 *
 * Arrows or WASD walk, the mouse turns and space throws a pebble there, Tab shows what the caretakers sense, Escape
 * ends. All that is drawn comes from gaze_draw; walls stop the player by gaze_sweep. */
#include <SDL.h>
#include <gaze/gaze.h>
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

enum { WIDTH = 1280, HEIGHT = 800, MOST_CORNERS = 4096 };
static const double scale = 48.0, left = -4.0, bottom = -3.0, radius = 0.25, height = 1.6, speed = 2.6;

typedef struct {
  gaze_game* game;
  gaze_agent player;
  gaze_pose pose;
  int shows_senses, thrown;
} House;

static gaze_text words(const char* text) {
  return (gaze_text){text, strlen(text)};
}

static void need(gaze_status status) {
  if (status == GAZE_OK) return;
  fprintf(stderr, "%.*s\n", (int)gaze_why().length, gaze_why().at);
  exit(1);
}

static SDL_FPoint on_screen(double x, double y) {
  return (SDL_FPoint){(float)((x - left) * scale), (float)(HEIGHT - (y - bottom) * scale)};
}

static gaze_vector in_house(int x, int y) {
  return (gaze_vector){x / scale + left, (HEIGHT - y) / scale + bottom, 0.0};
}

static SDL_Color colour_of(const gaze_mark* mark) {
  switch (mark->meaning) {
    case GAZE_M_SOLID: return (SDL_Color){124, 85, 70, 255};
    case GAZE_M_SOLID_RIM: case GAZE_M_SOLID_GONE: return (SDL_Color){214, 190, 160, 255};
    case GAZE_M_ZONE: return (SDL_Color){60, 70, 66, 160};
    case GAZE_M_SEEN_CALM: case GAZE_M_NEARNESS: return (SDL_Color){96, 170, 150, 60};
    case GAZE_M_SEEN_ALERT: return (SDL_Color){226, 150, 60, 80};
    case GAZE_M_SIGHT_CLEAR: case GAZE_M_FEELER_FINDS: case GAZE_M_TARGET: return (SDL_Color){240, 170, 70, 255};
    case GAZE_M_BODY:
      return mark->number == 0 ? (SDL_Color){110, 190, 140, 255} : (SDL_Color){214, 96, 160, 255};
    case GAZE_M_BODY_OUT: return (SDL_Color){90, 90, 90, 255};
    case GAZE_M_SHOT: case GAZE_M_BEAM: case GAZE_M_NOISE: return (SDL_Color){110, 160, 240, 255};
    case GAZE_M_BLAST: case GAZE_M_BLAST_CLEAR: case GAZE_M_SIGHT_STOPPED: return (SDL_Color){206, 84, 74, 200};
    default: return (SDL_Color){150, 150, 140, 160};
  }
}

/* A fan about a point from which all corners are in sight: who sees the area, else its first corner. */
static void fill(SDL_Renderer* to, const House* house, const gaze_mark* mark, SDL_Color colour) {
  static SDL_Vertex corners[MOST_CORNERS + 1];
  static int order[3 * MOST_CORNERS];
  int count = (int)(mark->point_count < MOST_CORNERS ? mark->point_count : MOST_CORNERS);
  SDL_FPoint middle = on_screen(mark->points[0], mark->points[1]);
  if (mark->who.index != GAZE_NOBODY_INDEX) {
    gaze_state state = {.size = sizeof state};
    need(gaze_states(house->game, &mark->who, 1, &state, sizeof state));
    middle = on_screen(state.position.x, state.position.y);
  }
  corners[count] = (SDL_Vertex){middle, colour, {0, 0}};
  for (int i = 0; i < count; ++i) {
    corners[i] = (SDL_Vertex){on_screen(mark->points[2 * i], mark->points[2 * i + 1]), colour, {0, 0}};
    order[3 * i] = count, order[3 * i + 1] = i, order[3 * i + 2] = (i + 1) % count;
  }
  SDL_RenderGeometry(to, NULL, corners, count + 1, order, 3 * count);
}

static void ring(SDL_Renderer* to, const gaze_mark* mark, SDL_Color colour, int is_filled) {
  enum { SIDES = 28 };
  SDL_Vertex corners[SIDES + 1];
  SDL_FPoint line[SIDES + 1];
  int order[3 * SIDES];
  const double r = mark->radius > 0.08 ? mark->radius : 0.08;
  corners[SIDES] = (SDL_Vertex){on_screen(mark->points[0], mark->points[1]), colour, {0, 0}};
  for (int i = 0; i < SIDES; ++i) {
    const double turn = 2.0 * 3.14159265358979 * i / SIDES;
    line[i] = on_screen(mark->points[0] + r * cos(turn), mark->points[1] + r * sin(turn));
    corners[i] = (SDL_Vertex){line[i], colour, {0, 0}};
    order[3 * i] = SIDES, order[3 * i + 1] = i, order[3 * i + 2] = (i + 1) % SIDES;
  }
  line[SIDES] = line[0];
  if (is_filled) SDL_RenderGeometry(to, NULL, corners, SIDES + 1, order, 3 * SIDES);
  else SDL_RenderDrawLinesF(to, line, SIDES + 1);
}

static void draw(SDL_Renderer* to, const House* house) {
  gaze_drawing* drawing;
  need(gaze_draw(house->game, house->shows_senses ? GAZE_ALL_LAYERS : 1u | 8u | 16u, 0.02, &drawing));
  SDL_SetRenderDrawColor(to, 24, 30, 28, 255);
  SDL_RenderClear(to);
  for (size_t i = 0; i < gaze_mark_count(drawing); ++i) {
    gaze_mark mark = {.size = sizeof mark};
    need(gaze_mark_at(drawing, i, &mark));
    SDL_Color colour = colour_of(&mark);
    if (mark.meaning == GAZE_M_BODY && mark.who.index == house->player.index) colour = (SDL_Color){250, 240, 220, 255};
    SDL_SetRenderDrawColor(to, colour.r, colour.g, colour.b, colour.a);
    if (mark.form == GAZE_AREA && mark.meaning != GAZE_M_FIELD && mark.meaning != GAZE_M_BOUNDS) {
      fill(to, house, &mark, colour);
    } else if (mark.form == GAZE_CIRCLE) {
      ring(to, &mark, colour, mark.meaning == GAZE_M_BODY || mark.meaning == GAZE_M_SHOT);
    } else if (mark.form == GAZE_LINE) {
      for (size_t k = 0; k + 1 < mark.point_count; ++k) {
        const SDL_FPoint a = on_screen(mark.points[2 * k], mark.points[2 * k + 1]);
        const SDL_FPoint b = on_screen(mark.points[2 * k + 2], mark.points[2 * k + 3]);
        SDL_RenderDrawLineF(to, a.x, a.y, b.x, b.y);
      }
    }
  }
  gaze_drawing_free(drawing);
  gaze_state state = {.size = sizeof state};
  need(gaze_states(house->game, &house->player, 1, &state, sizeof state));
  SDL_SetRenderDrawColor(to, 214, 96, 160, 255);
  SDL_RenderFillRectF(to, &(SDL_FRect){20, 20, (float)(state.health * 2.0), 12});
  SDL_RenderPresent(to);
}

/* Along x and y one after the other, so that a wall is slid along. */
static void walk(House* house, double x, double y, double seconds) {
  const double length = sqrt(x * x + y * y);
  if (length == 0.0) return;
  const gaze_vector ways[2] = {{x / length * speed * seconds, 0, 0}, {0, y / length * speed * seconds, 0}};
  for (int i = 0; i < 2; ++i) {
    double share = 0.0;
    need(gaze_sweep(house->game, house->pose.position, radius, height, ways[i], &share));
    share = share < 1.0 ? share * 0.95 : 1.0;
    house->pose.position.x += ways[i].x * share;
    house->pose.position.y += ways[i].y * share;
  }
}

static void throw_pebble(House* house, gaze_vector place) {
  int32_t done = 0;
  need(gaze_throw(house->game, house->player, words("pebble"), place, &done));
  house->thrown += done;
}

static int read_events(House* house) {
  SDL_Event event;
  int mouse_x, mouse_y;
  while (SDL_PollEvent(&event)) {
    if (event.type == SDL_QUIT) return 0;
    if (event.type == SDL_MOUSEMOTION) {
      const gaze_vector at = in_house(event.motion.x, event.motion.y);
      house->pose.facing_deg =
          atan2(at.y - house->pose.position.y, at.x - house->pose.position.x) * 57.29577951308232;
    }
    if (event.type != SDL_KEYDOWN || event.key.repeat) continue;
    if (event.key.keysym.sym == SDLK_ESCAPE) return 0;
    if (event.key.keysym.sym == SDLK_TAB) house->shows_senses = !house->shows_senses;
    if (event.key.keysym.sym == SDLK_SPACE) {
      SDL_GetMouseState(&mouse_x, &mouse_y);
      throw_pebble(house, in_house(mouse_x, mouse_y));
    }
  }
  return 1;
}

static void tell(const House* house) {
  size_t count = 0;
  static gaze_event events[256] = {{.size = sizeof(gaze_event)}};
  need(gaze_events(house->game, events, 256, sizeof(gaze_event), &count));
  for (size_t i = 0; i < count; ++i) {
    char line[256];
    size_t length = 0;
    if (events[i].other.index != house->player.index) continue;
    need(gaze_describe(house->game, i, line, sizeof line, &length));
    printf("%.*s\n", (int)length, line);
  }
  fflush(stdout);
}

static void begin(House* house, const char* file) {
  gaze_level* level;
  gaze_prepared* prepared;
  gaze_agent scripted;
  need(gaze_level_read(words(file), &level));
  need(gaze_prepare(level, &prepared));
  need(gaze_begin(prepared, &house->game));
  gaze_prepared_free(prepared);
  gaze_level_free(level);
  need(gaze_find(house->game, words("collector"), &scripted)); /* this time a player goes in its place */
  need(gaze_despawn(house->game, &scripted, 1));
  house->pose = (gaze_pose){{2.5, -1.2, 0.0}, 90.0};
  need(gaze_spawn(house->game, words("collector"), house->pose, words("player"), 1, &house->player));
}

int main(int count, char** arguments) {
  House house = {0};
  const double seconds = count > 2 ? atof(arguments[2]) : 1e9;
  if (count < 2) return fprintf(stderr, "house LEVEL [SECONDS]\n"), 2;
  begin(&house, arguments[1]);
  if (SDL_Init(SDL_INIT_VIDEO) != 0) return fprintf(stderr, "%s\n", SDL_GetError()), 1;
  SDL_Window* window = SDL_CreateWindow("The propagation house, after closing", 0, 0, WIDTH, HEIGHT, 0);
  SDL_Renderer* renderer = SDL_CreateRenderer(window, -1, 0);
  SDL_SetRenderDrawBlendMode(renderer, SDL_BLENDMODE_BLEND);
  Uint64 before = SDL_GetTicks64();
  while (read_events(&house) && gaze_seconds(house.game) < seconds) {
    const Uint64 now = SDL_GetTicks64();
    const double frame = (double)(now - before) / 1000.0;
    const Uint8* keys = SDL_GetKeyboardState(NULL);
    before = now;
    walk(&house, (keys[SDL_SCANCODE_RIGHT] | keys[SDL_SCANCODE_D]) - (keys[SDL_SCANCODE_LEFT] | keys[SDL_SCANCODE_A]),
         (keys[SDL_SCANCODE_UP] | keys[SDL_SCANCODE_W]) - (keys[SDL_SCANCODE_DOWN] | keys[SDL_SCANCODE_S]), frame);
    if (gaze_is_there(house.game, house.player))
      need(gaze_set_poses(house.game, &house.player, 1, &house.pose, sizeof house.pose));
    need(gaze_advance(house.game, frame < 0.25 ? frame : 0.25, 30, NULL));
    tell(&house);
    draw(renderer, &house);
    SDL_Delay(8);
  }
  printf("at %.2f, %.2f; pebbles thrown: %d; senses %s\n", house.pose.position.x, house.pose.position.y, house.thrown,
         house.shows_senses ? "shown" : "hidden");
  gaze_game_free(house.game);
  SDL_Quit();
  return 0;
}
