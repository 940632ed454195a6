#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> shape_sentences(const Job& job, const Shop&) {
    if (job.shape.kind == ShapeKind::mesh) {
        return {
            {"The shape is", enum_word<ShapeKind>("/shape/kind", "kind of shape"), ":",
             QString::fromStdString(job.shape.file.empty() ? std::string("none yet (Ctrl+I brings one in)")
                                                           : job.shape.file),
             ", read in", enum_word<FileUnit>("/shape/unit", "unit of the file"), "."}};
    }
    std::vector<Sentence> out{
        {"The shape is", enum_word<ShapeKind>("/shape/kind", "kind of shape"), ",",
         quantity_word("/shape/tray/depth", "depth", Kind::length, 0.01, 1), "deep, with walls at",
         quantity_word("/shape/tray/draft", "wall draft", Kind::angle, 0, radians(20),
                       "3° and more come off easily"),
         "of draft, an edge radius of",
         quantity_word("/shape/tray/edge_radius", "edge radius", Kind::length, 0, 0.3), "and a crown",
         quantity_word("/shape/tray/crown", "crown", Kind::length, 0, 0.3), "high."},
        {"It has", flag_word("/shape/tray/recess", "recess", "a recess", "no recess"),
         job.shape.tray.recess ? ", a rim" : "."},
        {"Facets are", quantity_word("/shape/tray/facet", "facet size", Kind::length, 0.002, 0.05),
         "long. Its outline is the table of points below."}};
    if (job.shape.tray.recess) {
        out[1].insert(out[1].end(),
                      {quantity_word("/shape/tray/recess_rim", "rim of the recess", Kind::length, 0.005, 0.2),
                       "from the edge and",
                       quantity_word("/shape/tray/recess_depth", "depth of the recess", Kind::length, 0, 0.1),
                       "deep."});
    }
    return out;
}

}  // namespace jig::app
