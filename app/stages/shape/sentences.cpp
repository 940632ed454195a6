#include "app/stages/sentences.hpp"

namespace jig::app {
namespace {

Sentence kind_of(std::initializer_list<Piece> rest) {
    Sentence out{"The shape is", enum_word<ShapeKind>("/shape/kind", "kind of shape")};
    out.insert(out.end(), rest);
    return out;
}

Blank facets(const char* path) {
    return quantity_word(path, "facet size", Kind::length, 0.002, 0.05);
}

void tray(const Job& job, std::vector<Sentence>& out) {
    out.push_back(kind_of(
        {",", quantity_word("/shape/tray/depth", "depth", Kind::length, 0.01, 1), "deep, with walls at",
         quantity_word("/shape/tray/draft", "wall draft", Kind::angle, 0, radians(20),
                       "3° and more come off easily"),
         "of draft, an edge radius of",
         quantity_word("/shape/tray/edge_radius", "edge radius", Kind::length, 0, 0.3), "and a crown",
         quantity_word("/shape/tray/crown", "crown", Kind::length, 0, 0.3), "high."}));
    Sentence recess{"It has", flag_word("/shape/tray/recess", "recess", "a recess", "no recess"),
                    job.shape.tray.recess ? ", a rim" : "."};
    if (job.shape.tray.recess)
        recess.insert(recess.end(),
                      {quantity_word("/shape/tray/recess_rim", "rim of the recess", Kind::length, 0.005, 0.2),
                       "from the edge and",
                       quantity_word("/shape/tray/recess_depth", "depth of the recess", Kind::length, 0, 0.1),
                       "deep."});
    out.push_back(recess);
    out.push_back(
        {"Facets are", facets("/shape/tray/facet"), "long. Its outline is the table of points below."});
}

void stations(std::vector<Sentence>& out) {
    out.push_back(
        {"Its sections stand in the table below, as",
         flag_word("/shape/stations/whole", "lower half", "a whole body", "an upper half, mouth down"),
         "; fullness 2 is an ellipse, more is boxier."});
    out.push_back({"The lines through them are faired with a stiffness of",
                   quantity_word("/shape/stations/stiffness", "stiffness", Kind::factor, 0, 1,
                                 "0 goes through every station"),
                   ", in facets of", facets("/shape/stations/facet"), "."});
}

void foil(const Job& job, std::vector<Sentence>& out) {
    Sentence section{"Its section follows", enum_word<FoilSection>("/shape/foil/section", "section")};
    if (job.shape.foil.section == FoilSection::formula)
        section.insert(
            section.end(),
            {",", quantity_word("/shape/foil/thickness", "thickness", Kind::ratio, 0.02, 0.4), "thick with",
             quantity_word("/shape/foil/camber", "camber", Kind::ratio, 0, 0.1), "of camber at",
             quantity_word("/shape/foil/camber_at", "place of the camber", Kind::ratio, 0.2, 0.7),
             "of the chord, its trailing edge",
             quantity_word("/shape/foil/edge", "trailing edge", Kind::thickness, 0, 0.01), "thick."});
    else
        section.emplace_back("(share of the chord, from the trailing edge over the top).");
    out.push_back(section);
    out.push_back(
        {"It spans", quantity_word("/shape/foil/span", "span", Kind::length, 0.1, 5), "from a chord of",
         quantity_word("/shape/foil/chord", "chord", Kind::length, 0.02, 2), "to one of",
         quantity_word("/shape/foil/tip_chord", "tip chord", Kind::length, 0.02, 2), ", twisted by",
         quantity_word("/shape/foil/twist", "twist", Kind::angle, radians(-30), radians(30)), "and swept by",
         quantity_word("/shape/foil/sweep", "sweep", Kind::angle, radians(-40), radians(40)), ", its ends",
         flag_word("/shape/foil/caps", "ends", "closed", "open"), ". Facets are", facets("/shape/foil/facet"),
         "long."});
}

void file(const Job& job, std::vector<Sentence>& out) {
    const auto& name = job.shape.file;
    out.push_back(kind_of(
        {":", QString::fromStdString(name.empty() ? "none yet (Ctrl+I brings one in)" : name), ", read in",
         enum_word<FileUnit>("/shape/unit", "unit of the file"), "; curved STEP faces to",
         quantity_word("/shape/chord", "chord", Kind::thickness, 0.00005, 0.005,
                       "how far a flat facet may stray"),
         "."}));
    out.push_back(
        {"Mending: points that fall together are",
         flag_word("/shape/mend/join", "joining points", "joined", "left"), ", empty and doubled faces",
         flag_word("/shape/mend/drop", "dropping faces", "dropped", "left"), ", faces",
         flag_word("/shape/mend/turn", "turning faces", "turned outwards", "left as they look"), ", pinholes",
         flag_word("/shape/mend/close", "closing pinholes", "closed", "left open"), "."});
}

}  // namespace

std::vector<Sentence> shape_sentences(const Job& job, const Shop&) {
    std::vector<Sentence> out;
    switch (job.shape.kind) {
        case ShapeKind::tray:
            tray(job, out);
            break;
        case ShapeKind::stations:
            out.push_back(kind_of({"."}));
            stations(out);
            break;
        case ShapeKind::copied:
            out.push_back(
                kind_of({"with", quantity_word("/shape/copying/holes", "holes", Kind::count, 0, 20),
                         "holes, which are",
                         flag_word("/shape/copying/holes_blanked", "blanking", "blanked flush", "still open"),
                         "; returns past its edges are",
                         flag_word("/shape/copying/returns_added", "returns", "added", "still missing"),
                         "and its own draft",
                         flag_word("/shape/copying/draft_accepted", "draft", "has been looked at",
                                   "has not been looked at"),
                         "."}));
            stations(out);
            break;
        case ShapeKind::foil:
            out.push_back(kind_of({"."}));
            foil(job, out);
            break;
        case ShapeKind::turned:
            out.push_back(kind_of({", drawn",
                                   flag_word("/shape/turned/smooth", "profile", "smoothly through its points",
                                             "straight from point to point"),
                                   "in facets of", facets("/shape/turned/facet"), "."}));
            break;
        case ShapeKind::mesh:
            file(job, out);
            break;
    }
    out.push_back({"On the bench it stands", enum_word<Upwards>("/shape/place/up", "side up"), ",",
                   flag_word("/shape/place/mirror", "mirror", "mirrored left for right", "not mirrored"),
                   ", at", quantity_word("/shape/place/scale", "scale", Kind::scale, 0.5, 2),
                   "of its size. The mould touches", enum_word<ToolFace>("/shape/place/face", "tool face"),
                   "."});
    return out;
}

}  // namespace jig::app
