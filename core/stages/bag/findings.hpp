#pragma once

#include "core/science/vacuum/bridging.hpp"
#include "core/science/vacuum/drop.hpp"
#include "core/science/vacuum/pump.hpp"
#include "core/stages/bag/clamp.hpp"
#include "core/stages/bag/layers.hpp"
#include "core/stages/bag/rim.hpp"
#include "core/stages/bag/way.hpp"
#include "core/stages/edge/findings.hpp"
#include "core/stages/part/findings.hpp"

namespace jig::bag {

struct Findings {
    std::vector<Figure> figures;
    bool closed = false;  ///< whether there is a bag at all
    LayUp how = LayUp::hand;
    ToolBehind behind;             ///< what a film round the whole tool meets
    Wrap wrap;                     ///< such a film; without sheets for another way
    double pulls = 1;              ///< that what closes it serves
    Film film;                     ///< of the piece that is shown
    Frame frame{};                 ///< of its girths
    Rim rim;                       ///< what stands on the film's land
    std::string carries;           ///< the layer that carries air to a hose
    double reaches = 0;            ///< m over which it does; 0 where nobody says
    bool measured = false;         ///< by girths of the tool's face; else by its area
    std::optional<Bridge> bridge;  ///< where a film that is there already spans the face
    std::string bridge_where;      ///< in words
    double gives = 0;  ///< m, radius past which free film stretches for good; 0 where the shop does not say
    std::optional<Clamping> clamp;  ///< of a squeeze mould
    std::vector<BagLayer> layers;   ///< from the last ply outwards
    double film_area = 0;           ///< m² of all of them, second bags too
    double tape = 0;                ///< m, the same
    int comes_out = 0;              ///< hoses and gauges that come out of the film, each with its tape
    /// One film over the face and flange of every piece, and its tape: whatever lies under it, the shell on
    /// its plug or the part in its mould, m² and m.
    double cover = 0, cover_tape = 0;
    double porous = 0;    ///< m³ of air in what lies under the film
    VacuumPump drawn_by;  ///< without a name where its figures are the job's own
    double trap = 0;      ///< m³
    int inlets = 0;       ///< hoses that are taken before the pump, by the trap where there is one
    std::optional<VacuumGauge> gauge;  ///< none where nobody says
    /// s that a drop test lasts at least for two steps of that gauge to show what is allowed; 0 without one.
    double told_after = 0;
    PumpDown pump;
    double room = 0;              ///< Pa outside
    double reached = 0;           ///< Pa in the bag at last; the room's without a pump
    double leak_rise = 0;         ///< Pa/s of the shut bag, as tested, or as it may
    double allowed = 0;           ///< Pa/s
    std::optional<DropFit> drop;  ///< of the readings; none for fewer than two
    /// Pa/s that the tested rise may be out by, two standard errors; 0 where nobody knows.
    [[nodiscard]] double unsure() const { return drop && drop->spread ? 2 * *drop->spread : 0; }
    bool tested = false;
    /// Pa·m³/s that pump, trap and hoses leak alone; none where they have not been tested.
    std::optional<double> alone;
    std::optional<Cycle> cycle;  ///< of a pump that switches by itself; none where it never stops
    std::optional<double> down;  ///< s until what is wanted; none where it is not reached
    double force = 0;            ///< N on the projected face
    double boils = 0;            ///< Pa at which styrene boils where the part gels; 0 without any
    bool operator==(const Findings&) const = default;
};

/// s over which a drop test is spoken of.
inline constexpr double kTenMinutes = 600;
/// The same leak as makers of pumps write it, mbar·L/s, in words.
std::string leak_words(double leak);

/// The film as it is rolled out, flat, with the middle of every pleat marked on its edge: those that stand at
/// one corner lie side by side. `frame` is that of the film's girths.
SheetSet film_sheet(const Film& film, const Frame& frame);
/// The same of whatever closes the part; a seam's tape is `land` m wide.
SheetSet closing_sheet(const Findings& findings, double land);

Findings evaluate(const Choices& choices, const part::Choices& part_choices, const part::Findings& part,
                  const split::Findings& split, const edge::Choices& edge_choices, const edge::Findings& edge,
                  const ToolBehind& behind, const brief::Of<brief::Making, brief::Pump>& brief,
                  const Library& shop, Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const edge::Choices& edge_choices,
            const part::Choices& part_choices, const part::Findings& part, int parts, const Library& shop);

}  // namespace jig::bag
