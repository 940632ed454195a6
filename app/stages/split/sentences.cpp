#include "app/stages/sentences.hpp"

namespace jig::app {
namespace {

void add_vector(Sentence& s, const char* path, const QString& name, Kind kind, double low, double high) {
    static const std::array<const char*, 3> axis{"x", "y", "z"};
    for (int i = 0; i < 3; ++i) {
        s.emplace_back(QString(i ? ", %1" : "%1").arg(axis[static_cast<std::size_t>(i)]));
        s.emplace_back(quantity_word(path + std::string("/") + std::to_string(i),
                                     QString("%1 along %2").arg(name, axis[static_cast<std::size_t>(i)]),
                                     kind, low, high));
    }
}

}  // namespace

std::vector<Sentence> split_sentences(const Job& job, const Shop& shop) {
    const auto& c = job.split;
    std::vector<Sentence> out{
        {"The mould is made", enum_word<SplitWay>("/split/way", "number of pieces"), "."}};
    if (c.way == SplitWay::search)
        out[0] = {"The mould is made", enum_word<SplitWay>("/split/way", "number of pieces"), ", at most",
                  quantity_word("/split/pieces", "pieces", Kind::count, 1, 6), "."};
    if (c.way == SplitWay::plane) {
        Sentence plane{"The plane goes through"};
        add_vector(plane, "/split/plane_at", "plane", Kind::length, -1, 1);
        plane.emplace_back("across");
        add_vector(plane, "/split/plane_normal", "plane's normal", Kind::factor, -1, 1);
        plane.emplace_back("; its handle is on the stand.");
        out.push_back(std::move(plane));
    } else {
        Sentence pull{c.way == SplitWay::one ? "It leaves along" : "Show faces are looked at along",
                      enum_word<PullMode>("/split/mode", "way of the pull")};
        if (c.mode == PullMode::given) {
            pull.emplace_back(":");
            add_vector(pull, "/split/pull", "pull", Kind::factor, -1, 1);
        }
        pull.emplace_back(".");
        out.push_back(std::move(pull));
    }
    Sentence drag{"A face drags with less draft than",
                  enum_word<DragRule>("/split/drag_rule", "rule of drag")};
    if (c.drag_rule == DragRule::given) {
        drag.emplace_back(":");
        drag.emplace_back(quantity_word("/split/drag_angle", "drag angle", Kind::angle, 0, radians(8),
                                        "1° for a rough face, 2° to 3° for a fine one"));
    }
    drag.emplace_back(".");
    out.push_back(std::move(drag));
    if (c.way == SplitWay::one) {
        out.push_back({"Flat faces at the foot are",
                       flag_word("/split/foot_open", "foot", "left open", "moulded too"), "."});
        Sentence beside{"The part", enum_word<Together>("/split/together", "parts in one mould")};
        if (c.together == Together::several)
            beside.insert(beside.end(),
                          {",", quantity_word("/split/parts", "parts", Kind::count, 2, 12), "in all"});
        if (c.together != Together::alone)
            beside.insert(beside.end(), {", with",
                                         quantity_word("/split/between", "flange between", Kind::length, 0,
                                                       0.2, "two trims and a saw's way, 40 to 80 mm"),
                                         "of flange between"});
        beside.emplace_back(".");
        out.push_back(std::move(beside));
        return out;
    }
    if (c.way == SplitWay::search)
        out.push_back({"Seams keep off show faces, those with",
                       quantity_word("/split/show_above", "show faces", Kind::angle, 0, radians(85),
                                     "0° marks no show face; the angle is that of the face's draft"),
                       "of draft or more against that pull, and those painted on the stand."});
    else if (!c.painted.empty())
        out.push_back({"Show surface is what is painted on the stand."});
    Sentence names{"They are called"};
    const auto called = std::min<std::size_t>(
        c.names.size(), c.way == SplitWay::plane ? 2 : static_cast<std::size_t>(c.pieces));
    for (std::size_t i = 0; i < called; ++i) {
        if (i > 0) names.emplace_back(",");
        names.emplace_back(
            text_word("/split/names/" + std::to_string(i), QString("name of piece %1").arg(i + 1)));
    }
    names.emplace_back(".");
    if (called > 0) out.push_back(std::move(names));
    Sentence joint{"Pieces are located by", enum_word<Locating>("/split/locating", "locating")};
    if (c.locating == Locating::leaning) {
        joint.emplace_back("of");
        joint.emplace_back(quantity_word("/split/lean", "lean of the joint face", Kind::angle, 0, radians(15),
                                         "3° to 10° find each other and lock sideways"));
    }
    if (c.locating == Locating::dowels) {
        joint.emplace_back(":");
        joint.emplace_back(shop_word("/split/dowel", "dowel", shop.fasteners));
        joint.emplace_back(",");
    }
    joint.emplace_back("and tried on their way out as shells");
    joint.emplace_back(quantity_word("/split/backing", "shell on the way out", Kind::length, 0.002, 0.05));
    joint.emplace_back("thick.");
    out.push_back(std::move(joint));
    out.push_back({"Parting boards of", shop_word("/split/board", "parting board", shop.boards), "stand",
                   quantity_word("/split/stand_off", "stand-off", Kind::thickness, 0.0005, 0.005,
                                 "about a millimetre, closed with clay"),
                   "off the plug,",
                   quantity_word("/split/board_width", "board width", Kind::length, 0.03, 0.3),
                   "wide, with a clay fillet of",
                   quantity_word("/split/fillet", "clay fillet", Kind::length, 0, 0.02), ", held up every",
                   quantity_word("/split/support_pitch", "pitch of supports", Kind::length, 0.1, 1), "."});
    return out;
}

}  // namespace jig::app
