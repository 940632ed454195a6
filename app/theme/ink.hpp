// The colours, type and hatches of the bench: one set for day, one for the night shift.
#pragma once

#include <QBrush>
#include <QColor>
#include <QFont>
#include <QString>

#include "core/science/mesh/draft.hpp"
#include "core/stages/stage.hpp"

namespace jig::app {

enum class Light { day, night };

struct Ink {
    QColor paper, sheet, ink, faint, rule, petrol, tape, moss, clay, oxide;
    QColor slides, drags, locks;
};

const Ink& ink(Light light);

/// Materials as a draughtsman hatches them.
enum class Hatch {
    board,
    foam,
    cloth_light,
    cloth_heavy,
    mat,
    core,
    plaster,
    ply_wood,
    coat,
    coupling,
    metal,
    release,
    tape,
    bag
};

/// The name of a figure in a slab, a ribbon or a legend comes with its hatch; `scale` widens it for print.
QBrush hatch_brush(Hatch hatch, const Ink& ink, double scale = 1);
QColor hatch_ground(Hatch hatch, const Ink& ink);

/// Loads the shipped fonts once; returns false where they are missing (the system's face then serves).
bool load_fonts(const QString& folder);
/// How large text is on screen, 0.8 to 2: the maker's choice. Print does not know it.
[[nodiscard]] double text_scale();
void set_text_scale(double scale);
/// While one lives, what this thread draws goes onto paper, in type of its own size.
class OnPaper {
  public:
    OnPaper();
    OnPaper(const OnPaper&) = delete;
    OnPaper& operator=(const OnPaper&) = delete;
    ~OnPaper();

  private:
    bool before_;
};
QFont word_font(double points = 10.5, bool strong = false);
QFont figure_font(double points = 10.5);

/// The style sheet of all widgets.
QString style_sheet(const Ink& ink);

QColor severity_colour(Severity severity, const Ink& ink);
QColor release_colour(Release release, const Ink& ink);
/// A mould piece by its number from 0: six inks, the first two apart in lightness as well as hue.
QColor piece_colour(std::size_t piece, const Ink& ink);

}  // namespace jig::app
