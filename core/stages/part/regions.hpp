// Where the part's zones lie on its face, and which of them lie over one another.
#pragma once

#include <map>

#include "core/stages/part/choices.hpp"
#include "core/stages/part/draped.hpp"

namespace jig::part {

/// What marking them out reads of the zones: where they lie, not what they are made of.
struct ZonesAsked {
    std::vector<Zone> places;
    /// Where inserts are that zones go round, each with its piece.
    std::vector<std::pair<Spot, int>> inserts = {};
    bool operator==(const ZonesAsked&) const = default;
};
ZonesAsked zones_asked(const Choices& choices);

/// Where inserts lie and nothing else of them, for what lies zones out; none where no zone goes round them.
std::vector<Insert> ringed_inserts(const Choices& choices);

/// A part of the face on which the same zones lie.
struct Region {
    std::uint32_t zones = 0;  ///< bit i for the i-th zone
    double area = 0;          ///< m²
    bool operator==(const Region&) const = default;
};

struct Regions {
    double area = 0;              ///< m² of the face; 0 where there is none
    std::vector<Region> regions;  ///< by their bits
    struct Border {
        Point a, b, normal;  ///< ends on the face, and its outward normal there
        bool operator==(const Border&) const = default;
    };
    std::vector<std::vector<Border>> borders;  ///< by zone
    std::vector<std::uint32_t> marks;          ///< by face of the draped mesh, the zones at its middle
    /// A place well inside each zone; none where it lies nowhere.
    std::vector<std::optional<Point>> middles;
    [[nodiscard]] double area_of(std::size_t zone) const;
    bool operator==(const Regions&) const = default;
};

/// Zones of other pieces of the mould lie nowhere on this one. Rims by their straight distance, lines and
/// outlines as they are seen along the pull, paint as it was laid; each border cuts through the face's
/// triangles, so areas do not depend on how it is meshed. Throws InputError for more than `kMostZones`;
/// Cancelled.
Regions regions(const ZonesAsked& asked, const Frame& frame, const Draped& draped, Progress& progress);

/// A piece of one triangle of the draped face on which the same zones lie.
struct RegionPiece {
    std::uint32_t face = 0, zones = 0;
    std::vector<Point> corners;
};
/// The whole face in such pieces. Throws as `regions`.
std::vector<RegionPiece> region_pieces(const ZonesAsked& asked, const Frame& frame, const Draped& draped,
                                       Progress& progress);

/// The zones at the middle of each triangle of `mesh`, which lies where the draped face does.
std::vector<std::uint32_t> zones_on(const ZonesAsked& asked, const Frame& frame, const Draped& draped,
                                    const TriangleMesh& mesh);

/// A zone to begin with, in a face of `area` m²: the stack's last ply once more, its line about the middle.
Zone fresh_zone(const Choices& choices, ZonePlace place, double area);

/// The layers where these zones lie: each in its turn on what those before it left.
std::vector<Layer> layers_under(const Choices& choices, std::uint32_t zones);

/// Of the common stack and of every zone.
std::vector<Layer> all_layers(const Choices& choices);

/// The layers under some zones, each with what it belongs to.
std::vector<std::pair<Layer, Source>> sources_under(const Choices& choices, std::uint32_t zones);

/// Whether a layer lies where some zones do, worked out once for each set of them. Outlived by the choices.
class LiesUnder {
  public:
    explicit LiesUnder(const Choices& choices) : choices_(choices) {}
    bool operator()(const Source& layer, std::uint32_t zones);

  private:
    const Choices& choices_;
    std::map<std::uint32_t, std::vector<Source>> under_;
};

bool has_core(const std::vector<Layer>& layers);

}  // namespace jig::part
