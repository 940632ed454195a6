// Builds the tool as finite elements, part by part: shell, ribs, tubes, feet.
#pragma once

#include <map>

#include "core/science/mesh/relieve.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/back/tool.hpp"
#include "core/stages/back/tubes.hpp"

namespace jig::back {

using shell_fe::Bar;
using shell_fe::Tie;

/// Twice the area of a face ÷ its longest side squared, below which it is left out.
inline constexpr double kSliver = 3e-3;

class ToolBuilder {
  public:
    ToolBuilder(const ToolInputs& in, const EvenFace& face, Progress& progress)
        : in_(in), c_(in.back), face_(face), progress_(progress) {}

    Tool build();

  private:
    std::vector<Point>& points() { return tool_.model.mesh.points; }
    double height(std::uint32_t i) { return f_.w.dot(points()[i]); }
    double highest();

    /// Skins by which zones lie on a face.
    void lay_shell();

    void mark_zone(const shell::Zone& zone, unsigned bit, std::vector<unsigned>& masks);

    std::uint32_t add_point(const Point& p);

    /// Where planes of both sets meet on the shell: the highest such place of each pair.
    void find_crossings();

    /// The rib's own point beside a point of the shell; ribs that meet there share it.
    std::uint32_t beside(std::uint32_t shell);

    /// Points from the shell to the rib's other edge at a crossing, shared by the two ribs there.
    const std::vector<std::uint32_t>& column(std::uint32_t shell);

    /// Height of a rib's other edge over a place of the shell.
    double top_of(const Point& p);

    void stand_ribs();

    /// Ties to ribs that could not be built hold nothing.
    void drop_loose_ties();

    /// Ribs are cut with the grain of their board along them.
    std::uint16_t rib_skin(const Point& along);

    void stand_rib(const std::vector<std::uint32_t>& chain, const Point& along, std::uint16_t skin);

    void panel(const std::vector<std::uint32_t>& chain, std::size_t from, std::size_t to, const Point& along,
               std::uint16_t skin);

    /// The wrapped cloth over a foam block's back edge is a bar.
    void cap(const std::vector<std::uint32_t>& ring, const std::vector<std::uint32_t>& right,
             const std::vector<std::uint32_t>& left, std::size_t edge_from);

    static Tie tied(std::uint32_t a, std::uint32_t b, const BondFacts& bond, double reach,
                    const Point& normal);

    /// Ties a rib's edge to the shell with the bond's stiffness a metre.
    void tie_chain(const std::vector<std::uint32_t>& chain, const Point& along);

    /// A direction across a bar: the pull, or the length for bars that stand.
    Point upright_of(std::uint32_t a, std::uint32_t b);

    Bar tube(std::uint32_t a, std::uint32_t b);

    /// A level grid with a leg to the shell at each crossing, bonded there over twice its own width.
    void stand_tubes();

    void find_rim();

    /// Whether the feet that would be taken of some places lie off every line by that much, m.
    [[nodiscard]] bool stands_wide(const std::vector<std::uint32_t>& stands, double off) const;

    void find_feet();

    const ToolInputs& in_;
    const Choices& c_;
    const Frame f_{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    const EvenFace& face_;
    Progress& progress_;
    Tool tool_;
    Lined lined_;
    std::array<PlaneSet, 2> planes_;
    std::size_t shell_points_ = 0;
    double thickness_ = 0, rib_thickness_ = 0;
    Laminate cap_;
    std::vector<std::uint32_t> ends_;
    std::map<std::pair<int, int>, std::uint32_t> crossing_;
    std::map<std::uint32_t, std::uint32_t> beside_;
    std::map<std::uint32_t, std::vector<std::uint32_t>> columns_;
};

}  // namespace jig::back
