#pragma once

namespace gaze {

/// What a visitor of the fields of a kind derives from that looks at some of them alone: it passes
/// over the others.
struct OtherFields {
  template <typename... T>
  void half(T&&...) {}
  template <typename... T>
  void second_word(T&&...) {}
  template <typename... T>
  void pair(T&&...) {}
  template <typename... T>
  void eye(T&&...) {}
  template <typename... T>
  void along(T&&...) {}
  template <typename... T>
  void amounts(T&&...) {}
  template <typename... T>
  void text(T&&...) {}
  template <typename... T>
  void like(T&&...) {}
  template <typename... T>
  void name(T&&...) {}
  template <typename... T>
  void names(T&&...) {}
  template <typename... T>
  void tags(T&&...) {}
  template <typename... T>
  void kinds(T&&...) {}
  template <typename... T>
  void teams(T&&...) {}
  template <typename... T>
  void team(T&&...) {}
  template <typename... T>
  void kind(T&&...) {}
  template <typename... T>
  void axes(T&&...) {}
  template <typename... T>
  void solid_to(T&&...) {}
  template <typename... T>
  void side_factors(T&&...) {}
  template <typename... T>
  void pockets(T&&...) {}
  template <typename... T>
  void lob(T&&...) {}
  template <typename... T>
  void defeat_attack(T&&...) {}
  template <typename... T>
  void when(T&&...) {}
  template <typename... T>
  void needs(T&&...) {}
};

}  // namespace gaze
