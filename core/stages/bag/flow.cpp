#include "core/stages/bag/flow.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/science/mesh/nearest_face.hpp"
#include "core/science/vacuum/pump.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/part/face.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::bag {
namespace {

/// Times as far as resin as old as the first pot would have come that tells pots of their own age.
constexpr double kAges = 1.01;
/// m of a cloth's edge along which resin may race.
constexpr double kEdgeGap = 0.01;

/// Thickness goes with the load to −this: typical of woven cloth, straight fibres and mat (Robitaille and
/// Gauvin 1998, Polymer Composites 19, 198).
double gives_of(const Reinforcement& cloth) {
    if (cloth.gives > 0) return cloth.gives;
    return cloth.weave == Weave::mat ? 0.16 : cloth.weave == Weave::unidirectional ? 0.05 : 0.08;
}

/// Kozeny (1927), Carman (1937): K goes with (1 − Vf)³/Vf².
double carried(double K, double from, double to) {
    const auto shape = [](double vf) { return std::pow(1 - vf, 3) / (vf * vf); };
    return K * shape(to) / shape(from);
}

/// What holes and slits of a core let through; nothing where it has none.
FlowLayer cored(const Core& core, const LaidLayer& laid) {
    FlowLayer out;
    const auto& cut = laid.layer.cut;
    const double thickness = out.thickness = laid.ply.thickness;
    const auto open = open_of(cut, thickness);
    out.angle = laid.layer.angle;
    // Round holes on a square pitch: π·d⁴/128 each (Hagen 1839, Poiseuille 1840).
    out.Kz = cut.hole > 0 ? kPi * std::pow(cut.hole, 4) / 128 / (cut.hole_pitch * cut.hole_pitch) : 1e-22;
    out.K1 = out.K2 = 1e-22;
    if (cut.slits != Slits::none) {
        // Slits as ducts, a·b³/12·(1 − 0.63·b/a) each with b the lesser side (Boussinesq's series, first
        // term).
        const double depth = open.depth * thickness;
        const auto [b, a] = std::minmax(cut.slit, depth);
        out.K1 = a * b * b * b / 12 * (1 - 0.63 * b / a) / cut.slit_pitch / thickness;
        if (cut.slits == Slits::both) out.K2 = out.K1;
        // Those that go right through feed the far skin too: w²/12 over their share of the face.
        if (open.depth >= 1) out.Kz += open.slits * cut.slit * cut.slit / 12;
    }
    double share = open.volume();
    if (core.fills > 0) {
        // A bulking mat fills like mat of its own open share.
        out.K1 = std::max(out.K1, 1e-10);
        out.K2 = std::max(out.K2, 1e-10);
        out.Kz = std::max(out.Kz, 1e-11);
        share = std::max(share, core.fills);
    }
    out.porosity = std::clamp(share, 0.0, 0.99);
    return out;
}

/// Whether a core that lets nothing through lies between plies.
bool parts_skins(const std::vector<Layer>& layers, const FlowLibrary& shop) {
    bool below = false, cored_off = false;
    for (const auto& l : layers) {
        if (l.kind == LayerKind::ply) {
            if (cored_off) return true;
            below = true;
        } else if (l.kind == LayerKind::core) {
            const auto& core = need(shop.cores, l.material, "part");
            const double thickness = l.thickness > 0 ? l.thickness : core.thickness;
            const bool through = core.fills > 0 || l.cut.hole > 0 || open_of(l.cut, thickness).depth >= 1;
            cored_off = cored_off || (below && !through);
        }
    }
    return false;
}

std::vector<FlowLayer*> layers_of(FlowAsked& asked) {
    std::vector<FlowLayer*> out{&asked.medium};
    for (auto& sheet : asked.preform) out.push_back(&sheet.flow);
    return out;
}

}  // namespace

namespace {

/// Layers that a zone of a stack adds, or the common ones at -1.
struct Sheets {
    const part::Choices& stack;
    const Resin& resin;
    const FlowLibrary& shop;

    /// Adds them to `out`, and says whether cloth is among them. Throws InputError.
    bool add(int zone, const std::vector<Layer>& layers, std::vector<FlowAsked::Sheet>& out) const {
        bool cloth_lies = false;
        // A zone may leave layers out and lay none.
        if (layers.empty()) return cloth_lies;
        const auto laid = lay_up(layers, resin, stack.how, PlyLists(shop), "part");
        for (std::size_t i = 0; i < laid.size(); ++i) {
            const auto& l = laid[i];
            FlowLayer flow;
            if (l.layer.kind == LayerKind::ply) {
                const auto& cloth = need(shop.reinforcements, l.layer.material, "part");
                flow.angle = l.layer.angle + cloth.lies_at;
                flow.thickness = l.ply.thickness;
                flow.porosity = std::clamp(1 - l.fibre_volume, 0.02, 0.98);
                flow.K1 = carried(cloth.K_along, cloth.K_share, 1 - flow.porosity);
                flow.K2 = carried(cloth.K_across, cloth.K_share, 1 - flow.porosity);
                flow.Kz = carried(cloth.K_through, cloth.K_share, 1 - flow.porosity);
                flow.gives = gives_of(cloth);
                cloth_lies = true;
            } else if (l.layer.kind == LayerKind::core) {
                flow = cored(need(shop.cores, l.layer.material, "part"), l);
            } else {
                continue;
            }
            out.push_back({{zone, i}, flow, l.layer.kind == LayerKind::ply});
        }
        return cloth_lies;
    }
};

FlowAsked asked_of(Infused of, const Choices& c, const part::Choices& stack, double room,
                   const FlowLibrary& shop) {
    FlowAsked out;
    const auto* resin = find(shop.resins, stack.resin);
    const auto* medium = find(shop.consumables, "flow medium");
    if (stack.how != LayUp::infused || resin == nullptr || resin->in_cloth || stack.layers.empty())
        return out;
    const auto& in = c.of(of);
    try {
        const Sheets sheets{stack, *resin, shop};
        if (!sheets.add(-1, stack.layers, out.preform)) return out;
        out.shut_core = parts_skins(stack.layers, shop);
        for (std::size_t z = 0; z < stack.zones.size(); ++z) {
            sheets.add(static_cast<int>(z), stack.zones[z].layers, out.preform);
            out.shut_core = out.shut_core || parts_skins(part::layers_under(stack, 1u << z), shop);
        }
    } catch (const InputError&) {
        return out;
    }
    out.of = of;
    out.stack.layers = stack.layers;
    out.stack.zones = stack.zones;
    out.stack.inserts = part::ringed_inserts(stack);
    for (auto& z : out.stack.zones) z.name.clear();
    out.infused = true;
    out.infusion = in;
    out.medium.thickness = 0;
    if (in.medium && medium != nullptr && medium->K > 0 && medium->pressed > 0) {
        out.medium.K1 = out.medium.K2 = out.medium.Kz = medium->K;
        out.medium.thickness = medium->pressed;
        out.medium.porosity = std::max(0.01, medium->share);
    }
    // What a front tells is all layers together.
    for (auto* layer : layers_of(out)) {
        for (double FlowLayer::*K : {&FlowLayer::K1, &FlowLayer::K2, &FlowLayer::Kz}) layer->*K *= in.lets;
    }
    out.resin = flowing(*resin, stack.gel_temperature);
    out.density = resin->matrix.density;
    out.pot_life = working(*resin, room, std::max(0.02, in.pot)).pot;
    out.mix_ratio = resin->mix_ratio;
    out.room = room_pressure(c.altitude);
    out.vacuum = std::min(std::max(c.wanted, c.ultimate), out.room);
    return out;
}

}  // namespace

FlowAsked flow_asked(const Choices& c, const part::Choices& part, const brief::Making& brief, double room,
                     const FlowLibrary& shop) {
    return brief.process == Process::squeeze ? FlowAsked{} : asked_of(Infused::part, c, part, room, shop);
}

part::Choices as_preform(const shell::Choices& shell, double gel) {
    part::Choices out;
    out.layers = shell.layers;
    out.zones.clear();
    for (const auto& z : shell.zones) {
        part::Zone zone;
        zone.way = ZoneWay::adds;
        zone.layers = z.layers;
        out.zones.push_back(std::move(zone));
    }
    out.resin = shell.resin;
    out.how = shell.how;
    out.pot_loss = shell.pot_loss;
    out.gel_temperature = gel;
    return out;
}

FlowAsked shell_flow_asked(const Choices& c, const shell::Choices& shell, double gel, double room,
                           const FlowLibrary& shop) {
    // Shell says so of more doublers than can be told apart.
    if (shell.zones.size() > shell::kMostZones) return {};
    auto out = asked_of(Infused::shell, c, as_preform(shell, gel), room, shop);
    if (!out.infused) return out;
    out.doublers = shell.zones;
    for (auto& z : out.doublers) z.layers.clear();
    return out;
}

FlowFace even_face(const edge::ToolFace& tool, Infused of, bool fine, Progress& progress) {
    if (of == Infused::part) return part::even_face(tool, fine, progress);
    const auto whole = part::evenly(tool.rimmed.mesh, tool.rimmed.patch, fine, progress);
    std::vector<char> flange;
    for (const int p : whole.patch) flange.push_back(p == 1 ? 1 : 0);
    return {std::make_shared<const TriangleMesh>(whole.mesh), std::move(flange)};
}

namespace {

/// The zones at the middle of each triangle.
std::vector<std::uint32_t> zones_at(const FlowFace& face, const FlowAsked& asked, const Frame& frame,
                                    const part::Draped& draped) {
    if (asked.of == Infused::part && draped.face)
        return part::zones_on(part::zones_asked(asked.stack), frame, draped, *face.mesh);
    std::vector<std::uint32_t> out(face.mesh->triangles.size(), 0);
    for (std::size_t z = 0; z < asked.doublers.size(); ++z) {
        const auto& doubler = asked.doublers[z];
        const auto lies = doubler.kind == ZoneKind::flange    ? face.flange
                          : doubler.kind == ZoneKind::painted ? shell::painted_faces(doubler, *face.mesh)
                                                              : std::vector<char>();
        for (std::size_t f = 0; f < lies.size(); ++f) out[f] |= lies[f] != 0 ? 1u << z : 0u;
    }
    return out;
}

/// Sums of all layers over each face: cloth as its net lies there, the medium up to its brake.
std::vector<FaceFlow> preform_on(const FlowFace& face, const FlowAsked& asked, const Frame& frame,
                                 const part::Draped& draped, const FlowGround& ground,
                                 const std::vector<PlacedPort>& ports) {
    const auto& mesh = *face.mesh;
    std::vector<FaceFlow> out(mesh.triangles.size());
    std::optional<NearestFace> nearest;
    // The part's nets say nothing of the shell's cloth.
    if (asked.of == Infused::part && draped.face && !draped.face->triangles.empty() && !draped.nets.empty())
        nearest.emplace(*draped.face);
    // Of each sheet the net that it lies by, and whether that net stands for it turned by a quarter.
    struct Lies {
        const part::ClothNet* net = nullptr;
        bool turned = false;
    };
    std::vector<Lies> lies(asked.preform.size());
    for (std::size_t s = 0; s < lies.size(); ++s) {
        if (!asked.preform[s].cloth || !nearest) continue;
        for (const auto& net : draped.nets) {
            if (!net.carries(asked.preform[s].of)) continue;
            const double off = std::remainder(asked.preform[s].flow.angle - net.angle, kPi);
            lies[s] = {&net, std::abs(off) > kPi / 4};
        }
    }
    // Which sheets lie under the same zones, and what those of them that have no net come to everywhere.
    struct Under {
        std::vector<std::size_t> sheets;
        std::vector<FaceFlow> plain;
    };
    const auto marks = zones_at(face, asked, frame, draped);
    std::map<std::uint32_t, Under> by_zones;
    for (const auto bits : marks) {
        auto [at, fresh] = by_zones.try_emplace(bits);
        if (!fresh) continue;
        std::vector<FlowLayer> plain;
        for (const auto& [layer, source] : part::sources_under(asked.stack, bits)) {
            for (std::size_t s = 0; s < lies.size(); ++s) {
                if (asked.preform[s].of != source) continue;
                at->second.sheets.push_back(s);
                if (lies[s].net == nullptr) plain.push_back(asked.preform[s].flow);
            }
        }
        at->second.plain = face_flows(mesh, plain, frame.u);
    }
    for (std::size_t f = 0; f < out.size(); ++f) {
        const auto& under = by_zones.at(marks[f]);
        out[f] = under.plain[f];
        const Point area = mesh.area_vector2(f);
        if (!nearest || area.squaredNorm() <= 0) continue;
        const Point normal = area.normalized();
        const auto on = nearest->at(mesh.centre(f));
        for (const auto s : under.sheets) {
            if (lies[s].net == nullptr) continue;
            const auto& l = asked.preform[s].flow;
            Point along = warp_on(lies[s].net->drape, *draped.face, on)
                              .value_or(std::cos(l.angle) * frame.u + std::sin(l.angle) * frame.v);
            along -= along.dot(normal) * normal;
            if (along.norm() < 1e-6) along = mesh.corner(f, 1) - mesh.corner(f, 0);
            along.normalize();
            const Point across = normal.cross(along);
            if (lies[s].turned)
                out[f].add(l, across, along);
            else
                out[f].add(l, along, across);
        }
    }
    std::vector<char> on_rim(mesh.points.size(), 0);
    for (const auto i : ground.rim()) on_rim[i] = 1;
    std::vector<std::uint32_t> vents;
    for (const auto& p : ports) {
        if (p.port.use == PortUse::vent) vents.insert(vents.end(), p.points.begin(), p.points.end());
    }
    const auto away = ground.away_from(vents);
    const auto medium =
        asked.medium.thickness > 0 ? face_flows(mesh, {asked.medium}, frame.u) : std::vector<FaceFlow>();
    for (std::size_t f = 0; f < out.size(); ++f) {
        const auto& t = mesh.triangles[f];
        if (!medium.empty()) {
            double low = 1e300, high = 0;
            for (const auto i : t) {
                low = std::min(low, away[i]);
                high = std::max(high, away[i]);
            }
            const double brake = asked.infusion.brake;
            const double share = vents.empty() || low >= brake
                                     ? 1
                                     : (high <= brake ? 0 : (high - brake) / std::max(high - low, 1e-12));
            out[f].conducts += share * medium[f].conducts;
            out[f].holds += share * medium[f].holds;
        }
        const int rim = on_rim[t[0]] + on_rim[t[1]] + on_rim[t[2]];
        if (asked.infusion.race > 1 && rim >= 2) {
            const double wide = std::sqrt(mesh.area_vector2(f).norm());
            out[f].conducts *= 1 + (asked.infusion.race - 1) * std::min(1.0, kEdgeGap / wide);
        }
    }
    return out;
}

Flow followed(const FlowAsked& asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
              bool fine, Progress& progress) {
    Flow out;
    out.of = asked.of;
    if (!asked.infused || !face.mesh || face.mesh->triangles.empty()) return out;
    const auto& mesh = *face.mesh;
    const auto& c = asked.infusion;
    const FlowGround ground(mesh, frame);
    out.runs = true;
    out.fine = fine;
    out.face = face.mesh;
    out.frame = frame;
    out.ports = placed(planned_ports(c, ground), ground);
    out.shut_core = asked.shut_core;
    out.pot_life = asked.pot_life;
    double edges = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        out.area += mesh.area_vector2(f).norm() / 2;
        edges += (mesh.corner(f, 1) - mesh.corner(f, 0)).norm();
    }
    out.edge = edges / static_cast<double>(mesh.triangles.size());
    // In its mould the part lies the other way up than on the plug.
    const Point up = asked.of == Infused::shell ? frame.w : Point(-frame.w);
    double top = -1e300, foot = 1e300;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            top = std::max(top, up.dot(mesh.points[i]));
            foot = std::min(foot, up.dot(mesh.points[i]));
        }
    }
    const double fall = asked.density * kGravity, pot = top - c.below;
    out.drive = asked.room - asked.vacuum - fall * c.below;
    out.rise = fall * (top - foot);
    std::vector<Feed> feeds;
    std::vector<Vent> vents;
    for (const auto& p : out.ports) {
        if (p.port.use == PortUse::vent) {
            vents.push_back({p.points, asked.vacuum});
            continue;
        }
        Feed feed;
        feed.points = p.points;
        double height = 0;
        for (const auto i : p.points) height += up.dot(mesh.points[i]) / static_cast<double>(p.points.size());
        feed.pressure = asked.room - fall * (height - pot);
        if (p.port.opens == PortOpens::clock) feed.open = {p.port.at, {}};
        if (p.port.opens == PortOpens::front) feed.open = {{}, p.at};
        feed.resists = hose_resists(c.hose, c.bore);
        if (p.port.shuts > 0) feed.shut = FlowMoment{p.port.shuts, {}};
        feeds.push_back(std::move(feed));
    }
    if (feeds.empty())
        throw InputError("bag", "no hose lets resin in", "place a feed, or take one of the plans");
    if (std::all_of(feeds.begin(), feeds.end(), [](const Feed& f) { return !f.open.time; }))
        throw InputError("bag", "every feed waits for resin that no other lets in",
                         "let one of them open at once");
    Viscosity viscosity(asked.resin, -c.waited);
    out.gel = viscosity.gels();
    if (out.gel && *out.gel <= 0) {
        Flow gelled;
        gelled.of = asked.of;
        gelled.gel = out.gel;
        gelled.fault = "the resin has gelled before the first feed opens";
        gelled.mend = "open it sooner after mixing, or take a slower hardener";
        return gelled;
    }
    out.viscosity = viscosity.at(0);
    FlowRules rules;
    rules.density = asked.density;
    rules.gravity = -kGravity * up;
    rules.share = fine ? 1.0 / 120 : 1.0 / 80;
    // A day is longer than anybody feeds.
    rules.end = 86400;
    const auto faces = preform_on(face, asked, frame, draped, ground, out.ports);
    out.filling = fill(mesh, faces, feeds, vents, viscosity, rules, progress);
    out.hoses = static_cast<double>(feeds.size()) * kPi / 4 * c.bore * c.bore * c.hose * asked.density;
    // As old as the first pot all through; where that tells, each pot by its own age.
    if (auto aged = of_pots(out.filling, viscosity, out.hoses, c.pot, c.waited, asked)) {
        const double end = out.filling.intake.back().first;
        if (aged->flow_time(end) > kAges * viscosity.flow_time(end)) {
            viscosity = std::move(*aged);
            out.aged = true;
            out.filling = fill(mesh, faces, feeds, vents, viscosity, rules, progress);
        }
    }
    // Hoses may be why it never fills.
    const auto& intake = out.filling.intake;
    const double ended = out.filling.fill.value_or(intake.empty() ? 0 : intake.back().first),
                 filled = viscosity.flow_time(ended);
    for (std::size_t i = 0; i < feeds.size(); ++i) {
        const auto& given = out.filling.feeds[i];
        if (!given.opened) continue;
        const double took =
            viscosity.flow_time(given.shut.value_or(ended)) - viscosity.flow_time(*given.opened);
        if (took > 1e-3 * filled)
            out.choked = std::max(out.choked, feeds[i].resists * given.mass / asked.density / took);
    }
    out.thickness = thickness_left(asked, out, faces, viscosity, rules.gravity, progress);
    // Plies swell as the front passes them.
    const double over = out.thickness ? out.thickness->over : 0;
    out.pots = pots_in_turn(out.filling, out.hoses + over, c.pot, c.waited, asked);
    if (asked.medium.thickness > 0) {
        // What lies under the medium, down to a core that is shut, where the common stack does.
        FlowLayer below;
        below.thickness = below.porosity = 0;
        double resists = 0;
        for (auto it = asked.preform.rbegin(); it != asked.preform.rend(); ++it) {
            if (it->of.zone >= 0) continue;
            if (!it->cloth && it->flow.Kz < 1e-20) break;
            below.thickness += it->flow.thickness;
            below.porosity += it->flow.porosity * it->flow.thickness;
            resists += it->flow.thickness / it->flow.Kz;
        }
        if (below.thickness > 0 && below.porosity > 0) {
            below.porosity /= below.thickness;
            below.Kz = below.thickness / resists;
            out.lag = lag_under(asked.medium, below);
            // At the front's mean speed over the way that it goes.
            const double way = std::sqrt(out.area) / 2;
            if (out.filling.fill && *out.filling.fill > 0)
                out.lag_time = out.lag.seconds(way / *out.filling.fill);
            // Where the medium ends the front slows by what it carried, and is waited for so much sooner.
            double tight = 0;
            for (const auto& sheet : asked.preform)
                tight += sheet.of.zone < 0 ? sheet.flow.K1 * sheet.flow.thickness : 0;
            out.brake = out.lag.length * tight / (tight + asked.medium.K1 * asked.medium.thickness);
        }
    }
    out.fit = fit_fronts(c, out, viscosity, asked.density);
    return out;
}

}  // namespace

Flow flow(const FlowAsked& asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
          bool fine, Progress& progress) {
    try {
        return followed(asked, face, frame, draped, fine, progress);
    } catch (const InputError& e) {
        Flow out;
        out.of = asked.of;
        out.fault = e.problem();
        out.mend = e.mend();
        return out;
    }
}

}  // namespace jig::bag
