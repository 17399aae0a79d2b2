/* Gaze from C, and from anything that speaks C.
 *
 * Handles are opaque. A call gives back a status; what it answers goes to where its last
 * parameters point. Whatever is not GAZE_OK has changed nothing, and gaze_why() says in words what
 * was refused. No exception leaves a call, and what the library has allocated only the library
 * frees.
 *
 * A struct that a call fills begins with its size, which the caller sets to sizeof: a library that
 * knows more members fills no more than that. Of a list, the size of the first holds for all, and
 * `stride` is how many bytes there are from one to the next: lists may lie in structs of the host's.
 *
 * Metres, seconds, degrees; right-handed, z up. One call at a time on one handle, but for those
 * that take it const; different handles are independent. */
#ifndef GAZE_H
#define GAZE_H

#include <stddef.h>
#include <stdint.h>

/* Names are those of C: NOLINTBEGIN(readability-identifier-naming) */
#ifdef __cplusplus
extern "C" {
#endif

#if defined(__GNUC__)
#define GAZE_CALL __attribute__((visibility("default")))
#else
#define GAZE_CALL
#endif

typedef enum gaze_status {
  GAZE_OK = 0,
  GAZE_USAGE = 1,  /* a call that cannot be meant: no such agent, a number that cannot be */
  GAZE_LEVEL = 2,  /* a level that cannot be read or played */
  GAZE_SAVE = 3,   /* a save that cannot be restored */
  GAZE_ROOM = 4,   /* a list or a text is longer than the room for it; its length is told */
  GAZE_MEMORY = 5, /* there is none left */
  GAZE_FAILED = 6  /* anything else */
} gaze_status;

/* UTF-8, not ended by a zero. As an answer it is valid until the next call on its handle. */
typedef struct gaze_text {
  const char* at;
  size_t length;
} gaze_text;

typedef struct gaze_vector {
  double x, y, z;
} gaze_vector;

/* An agent. The number of one that was taken out is used again, by another generation. */
typedef struct gaze_agent {
  uint32_t index;
  uint32_t generation;
} gaze_agent;

#define GAZE_NOBODY_INDEX 0xFFFFFFFFu
#define GAZE_NO_TEAM 0xFFFFFFFFu
#define GAZE_NO_SOLID 0xFFFFFFFFu
#define GAZE_NO_ZONE 0xFFFFFFFFu

typedef struct gaze_level gaze_level;
typedef struct gaze_prepared gaze_prepared;
typedef struct gaze_game gaze_game;
typedef struct gaze_drawing gaze_drawing;

/* "0.1.0" */
GAZE_CALL const char* gaze_version(void);
/* Why the last call of this thread that was refused was; valid until the next refusal. */
GAZE_CALL gaze_text gaze_why(void);

/* Levels: from a file, or from the text of one. */
GAZE_CALL gaze_status gaze_level_read(gaze_text file, gaze_level** level);
GAZE_CALL gaze_status gaze_level_parse(gaze_text text, gaze_text name, gaze_level** level);
GAZE_CALL void gaze_level_free(gaze_level* level);

/* A level made ready, with its meshes: any number of games may be begun from it, on any thread. */
GAZE_CALL gaze_status gaze_prepare(const gaze_level* level, gaze_prepared** prepared);
GAZE_CALL void gaze_prepared_free(gaze_prepared* prepared);

/* A world of the host's own: it is asked where each line is stopped first, all in one call. */
typedef struct gaze_segment {
  gaze_vector from, to;
} gaze_segment;

typedef struct gaze_hit {
  int32_t is_hit;
  uint64_t id; /* the host's own */
  gaze_vector place;
} gaze_hit;

typedef void (*gaze_rays)(void* host, const gaze_segment* segments, gaze_hit* hits, size_t count);

/* Games. A copy is a snapshot; assigning over an old copy of the same game reuses its memory. */
GAZE_CALL gaze_status gaze_begin(const gaze_prepared* prepared, gaze_game** game);
/* The same in a world of the host's own beside the solids of the level: what agents see, feel and
 * hear, and what shots meet, is asked of `rays` too. The function and `host` have to be there
 * as long as the game and its copies. */
GAZE_CALL gaze_status gaze_begin_in(const gaze_prepared* prepared, gaze_rays rays, void* host,
                                    gaze_game** game);
GAZE_CALL gaze_status gaze_copy(const gaze_game* game, gaze_game** copy);
GAZE_CALL gaze_status gaze_assign(gaze_game* to, const gaze_game* from);
GAZE_CALL void gaze_game_free(gaze_game* game);

typedef struct gaze_advanced {
  size_t size;
  int32_t steps;
  double left_over;    /* of a step, [0, 1), to blend the last two poses by */
  double lost_seconds; /* beyond the most steps */
} gaze_advanced;

GAZE_CALL gaze_status gaze_step(gaze_game* game);
/* As many whole steps as fit, at most so many. `done` may be null. */
GAZE_CALL gaze_status gaze_advance(gaze_game* game, double seconds, int32_t most_steps,
                                   gaze_advanced* done);
GAZE_CALL int64_t gaze_tick(const gaze_game* game);  /* -1 of no game */
GAZE_CALL double gaze_seconds(const gaze_game* game);
GAZE_CALL int32_t gaze_is_over(const gaze_game* game);

/* The whole game as bytes. `length` gets how many there are, also where there is no room. */
GAZE_CALL gaze_status gaze_save(const gaze_game* game, void* bytes, size_t room, size_t* length);
GAZE_CALL gaze_status gaze_restore(gaze_game* game, const void* bytes, size_t length);
GAZE_CALL gaze_status gaze_digest(const gaze_game* game, uint64_t* digest);

/* Who is there. `count` gets how many there are, also where there is no room. */
GAZE_CALL gaze_status gaze_agents(const gaze_game* game, gaze_agent* agents, size_t room,
                                  size_t* count);
/* Nobody (GAZE_NOBODY_INDEX) if there is none of that id. */
GAZE_CALL gaze_status gaze_find(const gaze_game* game, gaze_text id, gaze_agent* agent);
GAZE_CALL gaze_status gaze_id(const gaze_game* game, gaze_agent agent, gaze_text* id);
GAZE_CALL int32_t gaze_is_there(const gaze_game* game, gaze_agent agent);

typedef enum gaze_mode {
  GAZE_POST, GAZE_PATROL, GAZE_CHASE, GAZE_INVESTIGATE, GAZE_SEARCH, GAZE_RETURN, GAZE_WANDER,
  GAZE_FOLLOW, GAZE_FLEE, GAZE_MIRROR, GAZE_SCRIPT, GAZE_HOST, GAZE_OUT
} gaze_mode;

typedef struct gaze_state {
  size_t size;
  gaze_vector position; /* of the feet */
  double facing_x, facing_y;
  double head_x, head_y; /* where its sight looks */
  double health;
  double score;
  gaze_agent target; /* nobody: it acts on nobody */
  uint32_t team;
  int32_t mode; /* gaze_mode */
  int32_t is_alive;
  int32_t is_awake;
} gaze_state;

/* The states of agents, into a list. */
GAZE_CALL gaze_status gaze_states(const gaze_game* game, const gaze_agent* agents, size_t count,
                                  gaze_state* states, size_t stride);

typedef struct gaze_pose {
  gaze_vector position;
  double facing_deg;
} gaze_pose;

/* Moves agents that the host drives; all of them, or none where one cannot be. */
GAZE_CALL gaze_status gaze_set_poses(gaze_game* game, const gaze_agent* agents, size_t count,
                                     const gaze_pose* poses, size_t stride);
/* What one that the host drives aims at (null: straight ahead), and whether it fires. */
GAZE_CALL gaze_status gaze_set_aim(gaze_game* game, gaze_agent agent, const gaze_vector* aim,
                                       int32_t fires);

/* What else the host decides between two steps. `done` may be null; it gets 0 where there was
 * nothing to do: somebody is defeated already, too far off, or has none. `by` may be nobody. */
GAZE_CALL gaze_status gaze_teleport(gaze_game* game, gaze_agent agent, gaze_pose pose,
                                    int32_t* done);
GAZE_CALL gaze_status gaze_hurt(gaze_game* game, gaze_agent agent, double points, gaze_agent by,
                                int32_t* done);
GAZE_CALL gaze_status gaze_heal(gaze_game* game, gaze_agent agent, double points, int32_t* done);
GAZE_CALL gaze_status gaze_revive(gaze_game* game, gaze_agent agent, int32_t* done);
GAZE_CALL gaze_status gaze_wake(gaze_game* game, gaze_agent agent);
GAZE_CALL gaze_status gaze_give_tag(gaze_game* game, gaze_agent agent, gaze_text tag);
GAZE_CALL gaze_status gaze_take_tag(gaze_game* game, gaze_agent agent, gaze_text tag);
GAZE_CALL gaze_status gaze_take(gaze_game* game, gaze_agent agent, gaze_agent thing, int32_t* done);
GAZE_CALL gaze_status gaze_throw(gaze_game* game, gaze_agent agent, gaze_text kind,
                                 gaze_vector place, int32_t* done);
GAZE_CALL gaze_status gaze_drop(gaze_game* game, gaze_agent agent);
GAZE_CALL gaze_status gaze_make_noise(gaze_game* game, gaze_vector place, double reach,
                                      gaze_text name, gaze_agent maker);
GAZE_CALL gaze_status gaze_set_gone(gaze_game* game, uint32_t solid, int32_t is_gone);
/* A block by its outline, x and y one after the other, from `base` up. */
GAZE_CALL gaze_status gaze_add_block(gaze_game* game, gaze_text id, const double* outline,
                                     size_t corners, double base, double height, uint32_t material,
                                     int32_t can_go, uint32_t* solid);

/* An empty id: the name of the kind and a number. */
GAZE_CALL gaze_status gaze_spawn(gaze_game* game, gaze_text kind, gaze_pose pose, gaze_text id,
                                 int32_t host_drives, gaze_agent* agent);
GAZE_CALL gaze_status gaze_despawn(gaze_game* game, const gaze_agent* agents, size_t count);
GAZE_CALL gaze_status gaze_set_kind(gaze_game* game, gaze_agent agent, gaze_text kind);
/* "kind.pruner.sight.range", 6.0 */
GAZE_CALL gaze_status gaze_set_value(gaze_game* game, gaze_text path, double value);
GAZE_CALL gaze_status gaze_value(const gaze_game* game, gaze_text path, double* value);

/* What happened in the last step or advance, in order. */
typedef struct gaze_event {
  size_t size;
  gaze_text what; /* "noticed" */
  int64_t tick;
  gaze_agent agent;
  gaze_agent other; /* nobody: there is none */
  uint32_t solid;   /* GAZE_NO_SOLID: none */
  uint32_t zone;    /* GAZE_NO_ZONE: none */
  gaze_text attack;
  gaze_text noise;
  gaze_text by; /* the sense by which somebody is noticed */
  double distance;
  double angle_deg; /* noticed: off its facing; fired: the direction in the plan */
  double damage;
  double health;
  gaze_vector place;
  int32_t from_mode;
  int32_t to_mode;
  double gained; /* took: points of health that the agent gained */
} gaze_event;

GAZE_CALL gaze_status gaze_events(const gaze_game* game, gaze_event* events, size_t room,
                                  size_t stride, size_t* count);
/* One line about the event of that number. */
GAZE_CALL gaze_status gaze_describe(const gaze_game* game, size_t number, char* line, size_t room,
                                    size_t* length);

typedef struct gaze_shot {
  size_t size;
  gaze_agent shooter;
  gaze_text attack;
  gaze_vector position;
  gaze_vector velocity;
  double radius;
  int64_t number;
} gaze_shot;

GAZE_CALL gaze_status gaze_shots(const gaze_game* game, gaze_shot* shots, size_t room,
                                 size_t stride, size_t* count);

typedef enum gaze_awareness {
  GAZE_UNAWARE, GAZE_GATHERING, GAZE_NOTICED, GAZE_REMEMBERS
} gaze_awareness;

/* What one can tell of another now, and the three numbers that decide. */
typedef struct gaze_verdict {
  size_t size;
  int32_t sees;
  int32_t awareness; /* gaze_awareness */
  int32_t range_passes;
  int32_t field_passes;
  int32_t line_passes;
  double range, range_limit;
  double angle_deg, angle_limit_deg;
  double visible, visible_limit; /* shares of the body points */
} gaze_verdict;

GAZE_CALL gaze_status gaze_look(const gaze_game* game, gaze_agent looker, gaze_agent other,
                                gaze_verdict* verdict);
/* The same in words, with its numbers. */
GAZE_CALL gaze_status gaze_explain(const gaze_game* game, gaze_agent looker, gaze_agent other,
                                   char* text, size_t room, size_t* length);

/* How far a body gets on a straight way, as a share of it: 1 where no solid stops it. */
GAZE_CALL gaze_status gaze_sweep(const gaze_game* game, gaze_vector feet, double radius,
                                 double height, gaze_vector motion, double* share);

typedef enum gaze_plane { GAZE_GROUND, GAZE_UPRIGHT, GAZE_SPACE } gaze_plane;

typedef struct gaze_looker {
  gaze_vector feet;
  double facing_deg;
  double eye_height;
  double range;
  double field_deg;
} gaze_looker;

typedef struct gaze_looked {
  gaze_vector feet;
  double radius;
  double height;
} gaze_looked;

/* Whether each looker sees each other: for looker i and other j at i times the number of others,
 * plus j. Lines are asked for those alone who are in range and field. */
GAZE_CALL gaze_status gaze_see_all(gaze_rays rays, void* host, gaze_plane plane,
                                   const gaze_looker* lookers, size_t looker_count,
                                   const gaze_looked* others, size_t other_count, uint8_t* sees);

/* What there is to draw, in order. Layers are bits: 1 the level, 2 senses, 4 ways, 8 harm,
 * 16 agents. */
#define GAZE_ALL_LAYERS 31u
typedef enum gaze_form { GAZE_LINE, GAZE_AREA, GAZE_CIRCLE, GAZE_WORDS } gaze_form;

typedef enum gaze_meaning {
  GAZE_M_GROUND, GAZE_M_BOUNDS, GAZE_M_ZONE, GAZE_M_SEEN_CALM, GAZE_M_SEEN_ALERT, GAZE_M_FIELD,
  GAZE_M_WALKWAY, GAZE_M_WALKWAY_RIM, GAZE_M_WALKWAY_UP, GAZE_M_SOLID, GAZE_M_SOLID_RIM,
  GAZE_M_SOLID_GONE, GAZE_M_WAY, GAZE_M_TRAIL, GAZE_M_BLAST, GAZE_M_BLAST_CLEAR, GAZE_M_TRACK,
  GAZE_M_HIT, GAZE_M_NEARNESS, GAZE_M_NOISE, GAZE_M_FEELER_REACH, GAZE_M_FEELER,
  GAZE_M_FEELER_FINDS, GAZE_M_SIGHT_CLEAR, GAZE_M_SIGHT_OUTSIDE, GAZE_M_SIGHT_STOPPED,
  GAZE_M_SIGHT_BEYOND, GAZE_M_BEAM, GAZE_M_BODY, GAZE_M_BODY_OUT, GAZE_M_FACING, GAZE_M_TARGET,
  GAZE_M_SHOT
} gaze_meaning;

typedef struct gaze_mark {
  size_t size;
  int32_t form;    /* gaze_form */
  int32_t meaning; /* gaze_meaning */
  const double* points; /* of the plan, x and y one after the other */
  size_t point_count;
  double height;
  double radius;
  double share;
  uint32_t number; /* of an agent its team, of a solid its material */
  gaze_agent who;  /* nobody: about nobody */
  uint32_t solid;  /* GAZE_NO_SOLID: about none */
  gaze_text text;
} gaze_mark;

GAZE_CALL gaze_status gaze_draw(const gaze_game* game, uint32_t layers, double tolerance,
                                gaze_drawing** drawing);
GAZE_CALL size_t gaze_mark_count(const gaze_drawing* drawing);
/* Points and text are valid as long as the drawing. */
GAZE_CALL gaze_status gaze_mark_at(const gaze_drawing* drawing, size_t number, gaze_mark* mark);
GAZE_CALL void gaze_drawing_free(gaze_drawing* drawing);

#ifdef __cplusplus
}
#endif
/* NOLINTEND(readability-identifier-naming) */

#endif
