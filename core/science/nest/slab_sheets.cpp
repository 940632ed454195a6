#include "core/science/nest/slab_sheets.hpp"

#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include <filesystem>
#include <memory>

namespace jig {
namespace {

/// Each outer loop with the holes that lie in it.
std::vector<Loops> islands(const Loops& loops) {
    std::vector<Loops> out;
    const auto holds = [](const Loop& loop, const Point2& p) {
        bool inside = false;
        for (std::size_t i = 0; i < loop.size(); ++i) {
            const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
            if ((a.y() > p.y()) != (b.y() > p.y()) &&
                p.x() < a.x() + (p.y() - a.y()) / (b.y() - a.y()) * (b.x() - a.x()))
                inside = !inside;
        }
        return inside;
    };
    for (const auto& loop : loops) {
        if (signed_area(loop) > 0) out.push_back({loop});
    }
    for (const auto& loop : loops) {
        if (signed_area(loop) > 0) continue;
        for (auto& island : out) {
            if (holds(island.front(), loop.front())) {
                island.push_back(loop);
                break;
            }
        }
    }
    return out;
}

constexpr double kBar = 0.100;  // m of the check bar

}  // namespace

SheetSet lay_onto_sheets(const SlabStack& stack, const SheetRules& rules, Progress& progress) {
    SheetSet out;
    out.rules = rules;
    std::vector<Loop> outlines;
    std::vector<std::pair<int, Loops>> pieces;
    double area = 0;
    for (const auto& slab : stack.slabs) {
        for (auto& island : islands(slab.outline)) {
            outlines.push_back(island.front());
            pieces.emplace_back(slab.number, std::move(island));
        }
    }
    const auto nesting = nest(outlines, rules, progress);
    out.sheets.resize(static_cast<std::size_t>(nesting.sheets));
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const auto& placed = nesting.placed[i];
        if (placed.sheet < 0) {
            if (out.too_large.empty() || out.too_large.back() != pieces[i].first)
                out.too_large.push_back(pieces[i].first);
            continue;
        }
        SheetPiece piece;
        piece.slab = pieces[i].first;
        for (const auto& loop : pieces[i].second) {
            Loop moved;
            for (const auto& p : loop) moved.push_back(placed.at(p));
            for (const auto& p : moved)
                piece.mark += p / static_cast<double>(moved.size()) * (piece.loops.empty() ? 1 : 0);
            piece.loops.push_back(std::move(moved));
        }
        area += net_area(piece.loops);
        out.sheets[static_cast<std::size_t>(placed.sheet)].pieces.push_back(std::move(piece));
    }
    if (nesting.sheets > 0) out.yield = area / (nesting.sheets * rules.length * rules.width);
    return out;
}

std::string sheet_svg(const SheetSet& set, std::size_t sheet) {
    const double w = set.rules.length * 1000, h = set.rules.width * 1000;
    auto out = fmt::format(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.3f}mm\" height=\"{1:.3f}mm\" viewBox=\"0 0 "
        "{0:.3f} {1:.3f}\">\n"
        "<g id=\"sheet\" fill=\"none\" stroke=\"#6B6A60\" stroke-width=\"0.5\"><rect width=\"{0:.3f}\" "
        "height=\"{1:.3f}\"/></g>\n",
        w, h);
    out += "<g id=\"cut\" fill=\"none\" stroke=\"#20251F\" stroke-width=\"0.3\">\n";
    for (const auto& piece : set.sheets.at(sheet).pieces) {
        out += "<path d=\"";
        for (const auto& loop : piece.loops) {
            char verb = 'M';
            for (const auto& p : loop) {
                out += fmt::format("{}{:.3f} {:.3f}", verb, p.x() * 1000, h - p.y() * 1000);
                verb = 'L';
            }
            out += 'Z';
        }
        out += "\"/>\n";
    }
    out += "</g>\n<g id=\"mark\" fill=\"#1B5C66\" font-size=\"24\" text-anchor=\"middle\">\n";
    for (const auto& piece : set.sheets.at(sheet).pieces)
        out += fmt::format("<text x=\"{:.2f}\" y=\"{:.2f}\">{}</text>\n", piece.mark.x() * 1000,
                           h - piece.mark.y() * 1000, piece.slab);
    out += fmt::format(
        "<path d=\"M5 {0:.2f}H105\" stroke=\"#1B5C66\"/><text x=\"55\" y=\"{1:.2f}\" font-size=\"5\">100 "
        "mm</text>\n</g>\n</svg>\n",
        h - 3.0, h - 5.0);
    return out;
}

void write_sheet_dxf(const SheetSet& set, std::size_t sheet, const std::string& path) {
    DL_Dxf dxf;
    const std::unique_ptr<DL_WriterA> w(dxf.out(path.c_str(), DL_Codes::AC1015));
    if (!w || w->openFailed())
        throw InputError(path, "the file cannot be written", "choose a folder that you may write to");
    dxf.writeHeader(*w);
    w->dxfString(9, "$INSUNITS");
    w->dxfInt(70, 4);
    w->sectionEnd();
    w->sectionTables();
    dxf.writeVPort(*w);
    w->tableLinetypes(1);
    dxf.writeLinetype(*w, DL_LinetypeData("CONTINUOUS", "Continuous", 64, 0, 0.0));
    w->tableEnd();
    const std::array<const char*, 3> layers{"sheet", "cut", "mark"};
    w->tableLayers(4);
    dxf.writeLayer(*w, DL_LayerData("0", 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1.0));
    for (const auto* layer : layers)
        dxf.writeLayer(*w, DL_LayerData(layer, 0), DL_Attributes("", 7, 25, "CONTINUOUS", 1.0));
    w->tableEnd();
    w->tableStyle(1);
    dxf.writeStyle(*w, DL_StyleData("standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    w->tableEnd();
    dxf.writeView(*w);
    dxf.writeUcs(*w);
    w->tableAppid(1);
    dxf.writeAppid(*w, "ACAD");
    w->tableEnd();
    dxf.writeDimStyle(*w, 1, 1, 1, 1, 1);
    dxf.writeBlockRecord(*w);
    w->tableEnd();
    w->sectionEnd();
    w->sectionBlocks();
    for (const auto* block : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
        dxf.writeBlock(*w, DL_BlockData(block, 0, 0.0, 0.0, 0.0));
        dxf.writeEndBlock(*w, block);
    }
    w->sectionEnd();
    w->sectionEntities();
    const auto polyline = [&](const Loop& loop, const char* layer) {
        const DL_Attributes look(layer, 256, -1, "BYLAYER", 1.0);
        dxf.writePolyline(*w, DL_PolylineData(static_cast<int>(loop.size()), 0, 0, 1), look);
        for (const auto& p : loop) dxf.writeVertex(*w, DL_VertexData(p.x() * 1000, p.y() * 1000, 0, 0));
        dxf.writePolylineEnd(*w);
    };
    const auto text = [&](const Point2& at, double height, const std::string& words) {
        dxf.writeText(*w,
                      DL_TextData(at.x() * 1000, at.y() * 1000, 0, at.x() * 1000, at.y() * 1000, 0, height,
                                  1.0, 0, 1, 0, words, "standard", 0.0),
                      DL_Attributes("mark", 256, -1, "BYLAYER", 1.0));
    };
    polyline({{0, 0}, {set.rules.length, 0}, {set.rules.length, set.rules.width}, {0, set.rules.width}},
             "sheet");
    for (const auto& piece : set.sheets.at(sheet).pieces) {
        for (const auto& loop : piece.loops) polyline(loop, "cut");
        text(piece.mark, 24, std::to_string(piece.slab));
    }
    dxf.writeLine(*w, DL_LineData(5, 3, 0, 5 + kBar * 1000, 3, 0),
                  DL_Attributes("mark", 256, -1, "BYLAYER", 1.0));
    text({0.055, 0.005}, 5, "100 mm");
    w->sectionEnd();
    dxf.writeObjects(*w);
    dxf.writeObjectsEnd(*w);
    w->dxfEOF();
    w->close();
    std::error_code bad;
    if (std::filesystem::file_size(path, bad) == 0 || bad)
        throw InputError(path, "the file cannot be written to its end", "check the room left on the disk");
}

}  // namespace jig
