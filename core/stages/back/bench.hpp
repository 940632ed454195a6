// The tool on its feet with all that its load cases share.
#pragma once

#include "core/science/shell/system.hpp"
#include "core/stages/back/tipping.hpp"
#include "core/stages/back/trial.hpp"

namespace jig::back {

/// Three of the places that it stands on, far apart, held along the pull and just enough sideways: nothing is
/// strained by them. Throws InputError where the tool would fall over.
std::vector<shell_fe::Support> three_of(const std::vector<Point>& points,
                                        const std::vector<std::uint32_t>& on);

class Bench {
  public:
    /// Throws InputError where the tool has no rim or cannot be built; Cancelled.
    Bench(const ToolInputs& in, const EvenFace& face, Progress& progress);

    [[nodiscard]] const Tool& tool() const { return tool_; }
    [[nodiscard]] const std::vector<Point>& points() const { return tool_.model.mesh.points; }
    /// Places round the rim that a person leans on.
    [[nodiscard]] const std::vector<std::uint32_t>& leant() const { return leant_; }
    [[nodiscard]] const std::vector<std::uint32_t>& rim() const { return tool_.rim; }
    [[nodiscard]] std::vector<std::uint32_t> rim_corners() const;
    /// All places of the rim as far as the leant ones on either side of one of them.
    [[nodiscard]] std::vector<std::uint32_t> beside(std::uint32_t leant) const;
    /// Where slots are levered, or else the rim's corners.
    [[nodiscard]] std::vector<std::uint32_t> slots() const;
    /// Where it is bolted, or else all round the rim.
    [[nodiscard]] std::vector<std::uint32_t> bolts() const;

    /// In use the back is below: its weight pulls along the pull.
    [[nodiscard]] static shell_fe::Loads weight(double sign);
    [[nodiscard]] shell_fe::Loads leaning(std::uint32_t at) const;
    [[nodiscard]] shell_fe::Loads squeeze(const std::vector<std::uint32_t>& bolts) const;
    /// A wedge lifts the rim while the face still sticks to the plug evenly.
    [[nodiscard]] shell_fe::Loads levering(std::uint32_t at) const;
    /// A bag round everything. Over a grid it is stretched across the ribs' edges and lies in the cavity; a
    /// tool without one it presses from behind while it bridges the mouth.
    [[nodiscard]] shell_fe::Loads envelope() const;
    [[nodiscard]] static shell_fe::Loads heat(double warming);

    /// Takes a solution apart into what a maker asks of it. `pushed` is the point that is pushed, where there
    /// is one.
    [[nodiscard]] CaseResult result(LoadCase kind, const shell_fe::System& system,
                                    const shell_fe::Solution& solution, double warming,
                                    std::optional<std::uint32_t> pushed = {}) const;
    /// Where a place is, in words.
    [[nodiscard]] std::string said_where(const Point& place, bool flange) const;
    /// The push on the rim that tips it over its feet, or over feet as far out as it has places for.
    [[nodiscard]] Tips tips() const { return tips_on(tool_.feet); }
    [[nodiscard]] Tips tips_at_its_ends() const;

  private:
    [[nodiscard]] Tips tips_on(const std::vector<std::uint32_t>& on) const;
    /// A pressure on the moulded face from inside the cavity, on the flange too where wanted.
    [[nodiscard]] std::vector<float> from_within(double pressure, bool flange) const;
    /// Points of the rim next to fittings of a kind, or to `otherwise` where there are none.
    [[nodiscard]] std::vector<std::uint32_t> fitted(Fitting kind, const std::vector<std::uint32_t>& otherwise,
                                                    std::size_t most) const;
    void strains(const shell_fe::System& system, const shell_fe::Solution& solution, double warming,
                 CaseResult& out) const;

    const ToolInputs& in_;
    Tool tool_;
    std::vector<double> weight_;
    std::vector<Point> normal_;
    std::vector<std::uint32_t> face_, leant_;
    Point face_up_ = Point::Zero(), shell_up_ = Point::Zero();
};

}  // namespace jig::back
