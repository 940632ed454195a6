#include "core/science/nest/cut_sheets.hpp"

#include "core/base/units.hpp"

#include <dxflib/dl_dxf.h>
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <memory>

namespace jig {
namespace {

/// A place on the piece itself for its name: beside the middle of its first edge long enough, inwards.
Point2 mark_inside(const Loops& loops) {
    const auto& outer = loops.front();
    Point2 middle = Point2::Zero();
    for (const auto& p : outer) middle += p / static_cast<double>(outer.size());
    if (holds(loops, middle)) return middle;
    // A ring: step inwards from its edge until there is material all round.
    const Point2 size = high_corner({outer}) - low_corner({outer});
    for (double step : {0.03, 0.015, 0.008, 0.003}) {
        for (std::size_t i = 0; i < outer.size(); ++i) {
            const Point2 edge = outer[(i + 1) % outer.size()] - outer[i];
            if (edge.norm() < 1e-9) continue;
            const Point2 in =
                Point2(-edge.y(), edge.x()).normalized() * std::min(step, 0.2 * size.minCoeff());
            const Point2 at = outer[i] + edge / 2 + in;
            if (holds(loops, at) && holds(loops, at + in)) return at;
        }
    }
    return outer.front();
}

constexpr double kBar = 0.100;  // m of the check bar

}  // namespace

std::vector<CutPiece> pieces_of(const SlabStack& stack) {
    std::vector<CutPiece> out;
    for (const auto& slab : stack.slabs) {
        auto parts = islands(slab.outline);
        for (std::size_t k = 0; k < parts.size(); ++k) {
            auto& piece = out.emplace_back();
            piece.name = std::to_string(slab.number);
            if (parts.size() > 1)
                piece.name +=
                    k < 26 ? std::string(1, static_cast<char>('a' + k)) : "-" + std::to_string(k + 1);
            piece.slab = slab.number;
            piece.outline = std::move(parts[k]);
        }
    }
    return out;
}

void add_pieces(const Loops& outline, const std::string& name, double at, std::vector<CutPiece>& out) {
    for (auto& island : islands(outline)) {
        auto& piece = out.emplace_back();
        piece.name = name;
        piece.outline = std::move(island);
        piece.words = name + ", " + quantity(Kind::length, at) + " from the drawing's origin";
    }
}

SheetSet lay_onto_sheets(const std::vector<CutPiece>& pieces, const SheetRules& rules, Progress& progress) {
    SheetSet out;
    out.rules = rules;
    // Only what is cut from a sheet is laid; what comes out of its holes follows it.
    std::vector<Loop> outlines;
    std::vector<std::size_t> laid(pieces.size(), 0);
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (pieces[i].inside >= 0) continue;
        laid[i] = outlines.size();
        outlines.push_back(pieces[i].outline.front());
    }
    const auto nesting = nest(outlines, rules, progress);
    out.sheets.resize(static_cast<std::size_t>(nesting.sheets));
    std::vector<Point2> reach(out.sheets.size(), Point2::Zero());
    double area = 0;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        auto root = i;
        for (std::size_t guard = 0; pieces[root].inside >= 0 && guard < pieces.size(); ++guard)
            root = static_cast<std::size_t>(pieces[root].inside);
        const auto& placed = nesting.placed[laid[root]];
        if (placed.sheet < 0) {
            if (out.too_large.empty() || out.too_large.back() != pieces[i].name)
                out.too_large.push_back(pieces[i].name);
            continue;
        }
        SheetPiece piece;
        piece.name = pieces[i].name;
        const auto move = [&](const Loop& loop) {
            Loop moved;
            for (const auto& p : loop) moved.push_back(placed.at(p));
            return moved;
        };
        for (const auto& loop : pieces[i].outline) piece.loops.push_back(move(loop));
        for (const auto& line : pieces[i].engraved) piece.engraved.push_back(move(line));
        piece.mark = mark_inside(piece.loops);
        area += net_area(piece.loops);
        const auto sheet = static_cast<std::size_t>(placed.sheet);
        reach[sheet] = reach[sheet].cwiseMax(high_corner({piece.loops.front()}));
        out.sheets[sheet].pieces.push_back(std::move(piece));
    }
    for (std::size_t s = 0; s < reach.size(); ++s) {
        constexpr double kWorthKeeping = 0.1;
        const double right = rules.length - reach[s].x() - rules.kerf,
                     above = rules.width - reach[s].y() - rules.kerf;
        if (right >= kWorthKeeping) out.offcuts.push_back({s, right, rules.width});
        if (above >= kWorthKeeping) out.offcuts.push_back({s, reach[s].x() + rules.kerf, above});
    }
    if (nesting.sheets > 0) out.yield = area / (nesting.sheets * rules.length * rules.width);
    return out;
}

SheetSet template_sheet(const std::string& name, Loops loops, const std::vector<TemplateMark>& marks) {
    SheetSet out;
    const Point2 low = low_corner(loops) - Point2::Constant(0.02);
    const Point2 size = high_corner(loops) + Point2::Constant(0.02) - low;
    out.rules.length = size.x();
    out.rules.width = size.y();
    auto& sheet = out.sheets.emplace_back();
    for (auto& loop : loops) {
        for (auto& p : loop) p -= low;
    }
    sheet.pieces.push_back({name, std::move(loops), {}, size / 2});
    for (const auto& mark : marks) {
        const Point2 at = mark.at - low, arm(mark.arm, 0), up(0, mark.arm);
        sheet.pieces.push_back(
            {mark.name, {}, {{at - arm, at + arm}, {at - up, at + up}}, at + Point2(0.004, 0.012)});
    }
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
    out += "</g>\n<g id=\"engraved\" fill=\"none\" stroke=\"#1B5C66\" stroke-width=\"0.4\">\n";
    for (const auto& piece : set.sheets.at(sheet).pieces) {
        for (const auto& line : piece.engraved) {
            out += "<path d=\"";
            char verb = 'M';
            for (const auto& p : line) {
                out += fmt::format("{}{:.3f} {:.3f}", verb, p.x() * 1000, h - p.y() * 1000);
                verb = 'L';
            }
            out += "\"/>\n";
        }
    }
    out += "</g>\n<g id=\"mark\" fill=\"#1B5C66\" font-size=\"24\" text-anchor=\"middle\">\n";
    for (const auto& piece : set.sheets.at(sheet).pieces)
        out += fmt::format("<text x=\"{:.2f}\" y=\"{:.2f}\">{}</text>\n", piece.mark.x() * 1000,
                           h - piece.mark.y() * 1000, piece.name);
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
    dxf.writeAppid(*w, "JIGSHELL");
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
    const auto polyline = [&](const Loop& loop, const char* layer, bool closed = true) {
        const DL_Attributes look(layer, 256, -1, "BYLAYER", 1.0);
        dxf.writePolyline(*w, DL_PolylineData(static_cast<int>(loop.size()), 0, 0, closed ? 1 : 0), look);
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
        for (const auto& line : piece.engraved) polyline(line, "mark", false);
        text(piece.mark, piece.name.size() > 3 ? 12 : 24, piece.name);
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
