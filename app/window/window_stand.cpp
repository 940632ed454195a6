// What is shown on the stand and what hands do there.
#include <cmath>
#include <QAction>
#include <QSplitter>
#include <QStackedWidget>

#include "app/stages/panes.hpp"
#include "app/window/main_window.hpp"
#include "app/window/settings.hpp"
#include "core/stages/bag/front.hpp"
#include "core/stages/part/cut_line.hpp"

namespace jig::app {
namespace {

/// Below this width of the window the section would leave the stand too little.
constexpr int kRoomyWidth = 1180;

}  // namespace

void MainWindow::act_on(const QString& act) {
    if (act.startsWith("load-")) {
        for (std::size_t i = 0; i < Words<LoadCase>::all.size(); ++i) {
            const auto word = Words<LoadCase>::all[i].file;
            if (act.mid(5) == QString::fromUtf8(word.data(), static_cast<qsizetype>(word.size())))
                return show_load(static_cast<LoadCase>(i));
        }
        return show_load({});
    }
    if (act.startsWith("part-load-")) {
        const auto number = act.mid(10).toUInt();
        return show_part_load(number > 0 ? std::optional<std::size_t>(number - 1) : std::nullopt);
    }
    if (act.startsWith("bag-layer-")) {
        const auto number = act.mid(10).toUInt();
        return show_bag_layer(number > 0 ? std::optional<std::size_t>(number - 1) : std::nullopt);
    }
    if (act.startsWith("flow-thickness")) return show_flow_thickness(act.endsWith("-on"));
    if (auto* action = findChild<QAction*>("act-" + act)) action->trigger();
}

void MainWindow::show_flow_thickness(bool shown) {
    if (flow_thickness_ == shown) return;
    flow_thickness_ = shown;
    if (stage_ == Stage::bag) show_scene(false);
}

void MainWindow::show_thermocouples(CureOf of) {
    auto job = document_->job();
    job.heat.shows = of;
    job.heat.stands = OnStand::thermocouples;
    show_of_heat("show other thermocouples", std::move(job));
}

void MainWindow::show_folds() {
    auto job = document_->job();
    job.heat.stands = OnStand::folds;
    show_of_heat("show the part's folds", std::move(job));
}

void MainWindow::show_of_heat(const QString& what, Job job) {
    if (!(job.heat == document_->job().heat)) document_->replace(what, std::move(job));
    if (stage_ != Stage::heat) show_stage(Stage::heat);
    show_heat_tool(true);
}

void MainWindow::draw_programme(const QString& cure, std::size_t grip, const QPointF& to, bool done) {
    const auto& f = document_->findings();
    if (!in_hand_ && f.heat) {
        for (const auto& run : f.heat->cures->runs) {
            if (cure == QString::fromStdString(std::string(file_word(run.of))))
                in_hand_ = Drawn{run.of, run.legs, {}, run.cured.air};
        }
        if (in_hand_) {
            auto job = document_->job();
            in_hand_->own = heat::legs_in(job.heat, in_hand_->of);
            // What was drawn a moment ago and is not gone through yet is not taken back.
            if (in_hand_->own.size() == in_hand_->legs.size()) in_hand_->legs = in_hand_->own;
        }
    }
    if (!in_hand_) return;
    const auto corners = heat::leg_corners(in_hand_->legs, in_hand_->air);
    if (grip < corners.size()) {
        auto job = document_->job();
        // Let go where it was taken up, the usual programme is still the usual one.
        auto legs =
            heat::drawn_to(in_hand_->legs, in_hand_->air, corners[grip], to.x(), to.y(), job.heat.climbs);
        auto& own = heat::legs_in(job.heat, in_hand_->of);
        if (!own.empty() || legs != in_hand_->legs) {
            own = std::move(legs);
            document_->drag("draw a programme", std::move(job));
        }
    }
    if (!done) return;
    document_->end_drag();
    in_hand_.reset();
}

void MainWindow::drop_programme() {
    if (!in_hand_) return;
    auto job = document_->job();
    const bool drawn = heat::legs_in(job.heat, in_hand_->of) != in_hand_->own;
    in_hand_.reset();
    document_->end_drag();
    // What has changed nothing left no step: the one before it is not its own.
    if (drawn) document_->undo();
}

void MainWindow::show_other_infusion() {
    auto job = document_->job();
    if (!infuses(job, Infused::part) || !infuses(job, Infused::shell))
        return say("Part and shell are not both infused: there is no other to show.");
    job.bag.shows = job.bag.shows == Infused::part ? Infused::shell : Infused::part;
    document_->replace("show the other resin", std::move(job));
}

void MainWindow::mark_front() {
    const auto& f = document_->findings();
    if (!f.flow) return say("The resin has not been followed: see what the stage calls for.");
    const auto& flow = *f.flow;
    double last = 0;
    for (const auto& a : flow.filling.arrival) last = std::max(last, a.value_or(0));
    bag::SeenFront mark;
    // At the slider's end the front is nowhere any more.
    mark.after = std::max(1.0, std::round(std::min(stand_->apart(), 0.9) * last));
    // In the middle of what is seen of the planned front, a little off the face.
    std::vector<Point> front;
    for (const auto& line : bag::front_at(flow, mark.after))
        front.insert(front.end(), line.begin(), line.end());
    const Point off = 0.004 * std::sqrt(flow.area) * stand_->scene().upright.w;
    auto seen = front;
    std::erase_if(seen, [&](const Point& p) { return !stand_->sees(p + off); });
    if (seen.empty()) seen = std::move(front);
    if (!seen.empty()) {
        const Point2 at = bag::FlowGround(*flow.face, flow.frame).seen(seen[seen.size() / 2]);
        mark.along = at.x();
        mark.across = at.y();
    }
    auto job = document_->job();
    infusion_shown(job).seen.push_back(mark);
    document_->replace("add a mark of the front", std::move(job));
}

void MainWindow::show_load(std::optional<LoadCase> load) {
    if (load_ == load) return;
    load_ = load;
    if (stage_ == Stage::back) show_scene(true);
}

void MainWindow::show_part_load(std::optional<std::size_t> load) {
    if (part_load_ == load) return;
    part_load_ = load;
    if (stage_ == Stage::part) show_scene(true);
}

void MainWindow::show_bag_layer(std::optional<std::size_t> layer) {
    if (bag_layer_ == layer) return;
    bag_layer_ = layer;
    if (stage_ == Stage::bag) show_scene(false);
}

void MainWindow::glimpse(const Findings& shape) {
    // Other stages show more than the shape.
    if (stage_ == Stage::brief || stage_ == Stage::shape) draw(shape, true);
}

void MainWindow::show_scene(bool frame_again) {
    draw(document_->findings(), frame_again);
}

void MainWindow::draw(const Findings& f, bool frame_again) {
    const auto& job = document_->job();
    const bool chart = shows_charts();
    if (chart) chart_->show_chart(job, f, stage_, ink(light_), wording_);
    drawing_->ask({job,
                   f,
                   stage_,
                   &ink(light_),
                   wording_,
                   {stand_->apart(), load_, part_load_, bag_layer_, flow_thickness_,
                    ribbon_->room() == SectionRoom::open},
                   // A shape that does not work leaves the last good one standing.
                   !chart && (f.shape != nullptr || !framed_),
                   frame_again || !framed_});
}

void MainWindow::show_drawn(Drawing::Made& drawn) {
    if (drawn.stage != stage_) return;
    // A shape that cannot be drawn must not take the window down with the job in it.
    if (!drawn.refused.isEmpty()) say("The stand shows what was before: " + drawn.refused);
    if (drawn.scene) {
        drawn_ = drawn.stage;
        stand_->show_scene(std::move(*drawn.scene), drawn.frame_again);
    }
    framed_ = framed_ || document_->findings().shape != nullptr;
    ribbon_->show_section(drawn.section, wording_);
}

void MainWindow::make_room_for_section() {
    auto room = usual_room(stage_);
    // On small windows it folds wherever the maker has not asked for it.
    if (room == SectionRoom::open && width() < kRoomyWidth) room = SectionRoom::handle;
    if (const auto kept = kept_section(stage_))
        room =
            *kept ? SectionRoom::open : (room == SectionRoom::away ? SectionRoom::away : SectionRoom::handle);
    if (room == ribbon_->room()) return;
    ribbon_->set_room(room);
    const int low = room == SectionRoom::open ? section_height_ : ribbon_->maximumHeight();
    middle_->setSizes({std::max(1, middle_->height() - low), low});
}

void MainWindow::fold_section() {
    keep_section(stage_, ribbon_->room() != SectionRoom::open);
    make_room_for_section();
    show_scene(false);
}

void MainWindow::set_mark(int number, double share) {
    const auto& f = document_->findings();
    if (number >= kRimMarks) return set_rim(static_cast<std::size_t>(number - kRimMarks), share);
    if (!f.edge || number < 0 || drawn_ != stage_) return;
    auto job = document_->job();
    own_fittings(job, f);
    if (number >= static_cast<int>(job.edge.placed.size())) return;
    auto& placed = job.edge.placed[static_cast<std::size_t>(number)];
    placed.at = edge::snapped(f.edge->fitting_line, share, job.edge.bolt_pitch);
    document_->drag("move a fitting", std::move(job));
    show_scene(false);
}

void MainWindow::set_rim(std::size_t number, double share) {
    const auto& f = document_->findings();
    if (!f.bag || drawn_ != stage_ || number >= f.bag->rim.things.size()) return;
    const auto what = f.bag->rim.things[number].what;
    auto job = document_->job();
    auto list = bag::with_own(job.bag, f.bag->rim, what);
    const auto at = bag::place_in_list(list, f.bag->rim, number);
    if (at >= list.size()) return;
    list[at].at = share;
    job.bag.placed = std::move(list);
    document_->drag("move a " + QString::fromStdString(std::string(jig::said(what))), std::move(job));
}

void MainWindow::slide_mark(int number, const Point& at) {
    if (number < 0 || drawn_ != stage_) return;
    if (stage_ == Stage::part && number >= kCutMarks)
        set_cut_corner(static_cast<std::size_t>(number - kCutMarks), at);
    else if (stage_ == Stage::part && number >= kClothMarks)
        set_cloth(number == kClothMarks, at);
    else if (stage_ == Stage::part)
        set_insert(static_cast<std::size_t>(number), at);
    else if (number >= kSeenMarks)
        set_seen(static_cast<std::size_t>(number - kSeenMarks), at);
    else
        set_hose(number, at);
}

void MainWindow::set_insert(std::size_t number, const Point& at) {
    const auto& f = document_->findings();
    auto job = document_->job();
    if (!f.part || !f.part->draped->face || !f.edge || !f.edge->tool || number >= job.part.inserts.size())
        return;
    const Point2 to = bag::FlowGround(*f.part->draped->face, f.edge->tool->frame).seen(at);
    job.part.inserts[number].along = to.x();
    job.part.inserts[number].across = to.y();
    document_->drag("move an insert", std::move(job));
    show_scene(false);
}

void MainWindow::set_cut_corner(std::size_t corner, const Point& at) {
    const auto& f = document_->findings();
    if (!f.part || !f.part->draped->face || !f.edge || !f.edge->tool) return;
    auto job = document_->job();
    const bag::FlowGround ground(*f.part->draped->face, f.edge->tool->frame);
    for (auto& cut : job.part.cuts) {
        if (corner >= cut.line.size()) {
            corner -= cut.line.size();
            continue;
        }
        part::move_corner(cut, corner, ground.seen(at), *f.part->draped, f.edge->tool->frame);
        document_->drag("move a cut", std::move(job));
        show_scene(false);
        return;
    }
}

void MainWindow::set_cloth(bool start, const Point& at) {
    const auto& f = document_->findings();
    if (!f.part || !f.part->draped->face || !f.edge || !f.edge->tool) return;
    const auto* net = f.part->draped->worst();
    if (net == nullptr) return;
    auto job = document_->job();
    auto& drape = job.part.drape;
    const Point2 to = bag::FlowGround(*f.part->draped->face, f.edge->tool->frame).seen(at);
    if (start) {
        drape.along = to.x();
        drape.across = to.y();
    } else {
        const Point2 way = to - Point2(drape.along, drape.across);
        if (way.norm() < 1e-6) return;
        // A thread has no head: half a turn leaves it as it was.
        drape.turn = std::remainder(std::atan2(way.y(), way.x()) - net->angle, kPi);
    }
    document_->drag(start ? "move where the cloth starts" : "turn the cloth", std::move(job));
    show_scene(false);
}

void MainWindow::turn_cloth() {
    auto job = document_->job();
    job.part.drape.turn = std::remainder(job.part.drape.turn + kPi / 4, kPi);
    document_->replace("turn the cloth onto the bias", std::move(job));
}

void MainWindow::set_seen(std::size_t number, const Point& at) {
    const auto& f = document_->findings();
    auto job = document_->job();
    auto& seen = infusion_shown(job).seen;
    if (!f.flow || number >= seen.size()) return;
    const Point2 to = bag::FlowGround(*f.flow->face, f.flow->frame).seen(at);
    seen[number].along = to.x();
    seen[number].across = to.y();
    document_->drag("move a mark of the front", std::move(job));
    show_scene(false);
}

void MainWindow::set_hose(int number, const Point& at) {
    const auto& f = document_->findings();
    if (!f.flow) return;
    auto job = document_->job();
    infusion_shown(job) = bag::with_own_ports(infusion_shown(job), *f.flow);
    const auto i = static_cast<std::size_t>(number / 2);
    if (i >= infusion_shown(job).ports.size()) return;
    auto& port = infusion_shown(job).ports[i];
    const Point2 to = bag::FlowGround(*f.flow->face, f.flow->frame).seen(at);
    (number % 2 == 0 ? port.along : port.to_along) = to.x();
    (number % 2 == 0 ? port.across : port.to_across) = to.y();
    document_->drag("move a hose", std::move(job));
    show_scene(false);
}

void MainWindow::set_cut(double at) {
    auto job = document_->job();
    job.cut.at = at;
    document_->drag("drag the cut", std::move(job));
}

void MainWindow::set_plane(double share) {
    const auto& f = document_->findings();
    if (!f.shape || drawn_ != stage_) return;
    auto job = document_->job();
    job.split.plane_at = plane_dragged_to(job, f, share);
    document_->drag("drag the split", std::move(job));
    // The plane follows the mouse at once; its pieces follow when they are worked out.
    show_scene(false);
}

void MainWindow::lay_paint(const Brush& brush, const std::vector<Touched>& touches, double reach) {
    if (drawn_ != stage_) return;
    auto job = document_->job();
    const auto three = [](const Point& p) { return std::array{p.x(), p.y(), p.z()}; };
    // Onto the zone that the brush names, off every painted one; the first stroke begins one.
    const auto lay_on = [&](auto& zones, std::size_t most, const auto& is_painted, const auto& fresh) {
        if (brush.paint == Paint::plain) {
            for (auto& zone : zones) {
                if (!is_painted(zone)) continue;
                std::erase_if(zone.painted, [&](const Touch& t) {
                    return std::any_of(touches.begin(), touches.end(), [&](const Touched& touch) {
                        return (t.dab().at - touch.at).norm() < reach + t.reach / 2;
                    });
                });
            }
        } else {
            // A job that has changed since the brush was shown is not painted in another's place.
            if (brush.zone && (*brush.zone >= zones.size() || !is_painted(zones[*brush.zone]))) return;
            if (!brush.zone && zones.size() >= most)
                return say(QString("There are %1 zones, the most there can be").arg(most));
            if (!brush.zone) zones.push_back(fresh());
            auto& zone = zones[brush.zone.value_or(zones.size() - 1)];
            for (const auto& touch : touches)
                zone.painted.push_back({three(touch.at), three(touch.facing), reach});
        }
        document_->replace("paint: " + brush.name, std::move(job));
    };
    if (stage_ == Stage::shell)
        return lay_on(
            job.shell.zones, shell::kMostZones,
            [](const shell::Zone& z) { return z.kind == ZoneKind::painted; },
            [&] { return shell::fresh_zone(job.shell, ZoneKind::painted); });
    if (stage_ == Stage::part)
        return lay_on(
            job.part.zones, part::kMostZones,
            [](const part::Zone& z) { return z.place == ZonePlace::painted; },
            [&] { return part::fresh_zone(job.part, ZonePlace::painted, 0); });
    for (const auto& touch : touches)
        job.split.painted.push_back(
            {brush.paint, three(touch.at), three(touch.facing), reach, three(brush.toward)});
    document_->replace("paint: " + brush.name, std::move(job));
}

}  // namespace jig::app
