// Reading the cases that verbs work on.
#pragma once

#include <initializer_list>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "batch/arguments.hpp"
#include "core/base/json.hpp"
#include "core/base/progress.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::batch {

/// s; what takes longer, thirty years, is a slip of the pen.
inline constexpr double kLongest = 1e9;

/// The number of a key; throws InputError where it is missing, none, or outside [low, high].
double between(const JsonPlace& place, const char* key, double low, double high);
/// The same, with a value for a key that is not there.
double between(const JsonPlace& place, const char* key, double low, double high, double otherwise);

Point point_from(const JsonPlace& place);
/// A box by two of its corners, whichever.
Bounds box_from(const JsonPlace& place);
/// A mesh by a file's name, meant from where `case_file` lies, or by its points and triangles.
TriangleMesh mesh_from(const JsonPlace& place, const std::string& unit, const std::string& case_file,
                       Progress& progress);

/// Throws InputError where the place is no object, or has a key that is not among these.
void known_keys(const JsonPlace& place, std::initializer_list<std::string_view> known);
/// Keys that nobody reads are said, since a misspelt load would otherwise be a load left out.
void note_unknown(const JsonPlace& place, std::initializer_list<std::string_view> known,
                  const std::string& where, std::vector<std::string>& notes);

/// The places of every --probe.
std::vector<Point> probes_of(const Arguments& arguments);

Json three(const Point& p);
Json or_null(const std::optional<double>& value);

}  // namespace jig::batch
