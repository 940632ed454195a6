#include <algorithm>
#include <cmath>
#include <limits>

#include "core/science/machine/scallop.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::plug {
namespace {

/// Even cuts of a length so that no part is longer than `room`; 1 where there is no limit.
int shares(double length, double room) {
    return room > 0 ? std::max(1, static_cast<int>(std::ceil(length / room - 1e-9))) : 1;
}

}  // namespace

Blank blank_of(const Body& body, double area) {
    Point low = Point::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : body.surface->mesh.points) {
        const Point q(body.frame.flat(p).x(), body.frame.flat(p).y(), body.frame.w.dot(p));
        low = low.cwiseMin(q);
        high = high.cwiseMax(q);
    }
    low.z() = std::min(low.z(), body.foot);
    return {body.surface->mesh, *body.rays, body.frame, low, high, body.volume, area};
}

BlockPlan block_plan(const Block& b, const Blank& blank, const Board& board, const Asked& brief,
                     const Library& shop, Progress& progress) {
    BlockPlan out;
    Point low = blank.low, high = blank.high;
    low.head<2>().array() -= b.allowance;
    high.array() += b.allowance;
    const Point size = high - low;
    // The block stands with its long side along the router's longer travel.
    const double long_travel = std::max(brief.router_x, brief.router_y),
                 short_travel = std::min(brief.router_x, brief.router_y);
    const bool along_u = size.x() >= size.y();
    const int nu = shares(size.x(), along_u ? long_travel : short_travel),
              nv = shares(size.y(), along_u ? short_travel : long_travel),
              nw = shares(size.z(), brief.router_z);
    const Point part(size.x() / nu, size.y() / nv, size.z() / nw);
    const Point2 middle((low.x() + high.x()) / 2, (low.y() + high.y()) / 2);
    for (int k = 0; k < nw; ++k) {
        for (int j = 0; j < nv; ++j) {
            for (int i = 0; i < nu; ++i) {
                BlockPart p;
                p.low = low + Point(i * part.x(), j * part.y(), k * part.z());
                p.high = p.low + part;
                // Two dowels in each face that meets the next part, at a quarter from its ends, a third up.
                if (i + 1 < nu) {
                    for (const double share : {0.25, 0.75})
                        p.dowels.emplace_back(p.high.x(), p.low.y() + share * part.y(),
                                              p.low.z() + part.z() / 3);
                }
                if (j + 1 < nv) {
                    for (const double share : {0.25, 0.75})
                        p.dowels.emplace_back(p.low.x() + share * part.x(), p.high.y(),
                                              p.low.z() + part.z() / 3);
                }
                if (k + 1 < nw) {
                    for (const double share : {0.25, 0.75}) {
                        // Towards the block's middle, where there is still material above.
                        const Point2 at(p.low.x() + share * part.x(), p.low.y() + share * part.y());
                        const Point2 in = at + 0.3 * (middle - at);
                        p.dowels.emplace_back(in.x(), in.y(), p.high.z());
                    }
                }
                out.parts.push_back(std::move(p));
            }
        }
    }
    // Boards: layers of the stock's thickness, each tiled by whole boards.
    out.layers = std::max(1, static_cast<int>(std::ceil(size.z() / board.thickness - 1e-9)));
    const auto tiled = [&](double l, double w) {
        return std::ceil(size.x() / l - 1e-9) * std::ceil(size.y() / w - 1e-9);
    };
    // Offcuts of a layer serve the next, so boards are counted by area, a saw's way and one board over.
    const double a_layer =
        std::min({tiled(board.sheet_length, board.sheet_width), tiled(board.sheet_width, board.sheet_length),
                  std::ceil(1.1 * size.x() * size.y() / (board.sheet_length * board.sheet_width) - 1e-9)});
    out.boards = static_cast<int>(a_layer) * out.layers;
    out.bought = out.boards * board.sheet_length * board.sheet_width * board.thickness;
    const double block = size.prod();
    out.removed = std::max(0.0, block - blank.volume);
    out.glue_area = (out.layers - 1) * size.x() * size.y() + (nu - 1) * size.y() * size.z() +
                    (nv - 1) * size.x() * size.z();
    out.reach =
        reach_of_cutter(blank.face, blank.rays, blank.frame, {b.cutter, b.stick_out, b.holder}, progress);
    // The step that costs least: the machine's hours against the hands' on the ridges.
    Feeds feeds;
    feeds.feed = b.feed;
    feeds.rough_deep = b.rough_deep;
    feeds.rough_wide = b.rough_wide;
    const double machine_rate = shop.rate("router") + shop.rate("watching the router") * shop.rate("labour"),
                 hand_rate = shop.rate("labour"),
                 scallops = shop.rate(board.is_metal() ? "polishing scallops of metal" : "sanding scallops");
    const auto by_hand = [&](double step) {
        return scallops * blank.area * scallop_height(step, b.cutter) * 1e3;
    };
    double least = std::numeric_limits<double>::infinity();
    for (int i = 0; i <= 60; ++i) {
        // From a hundredth of the ball to its radius, even in the logarithm.
        const double step = b.cutter * std::pow(100.0, i / 60.0) / 100;
        const double machine = finishing_seconds(blank.area, step, feeds) / 3600 * machine_rate,
                     hands = by_hand(step) * hand_rate;
        out.curve.push_back({step, machine, hands});
        if (machine + hands < least) {
            least = machine + hands;
            out.step = step;
        }
    }
    if (b.step > 0) out.step = b.step;
    out.scallop = scallop_height(out.step, b.cutter);
    out.machine = roughing_seconds(out.removed, feeds) + finishing_seconds(blank.area, out.step, feeds);
    out.by_hand = by_hand(out.step);
    return out;
}

}  // namespace jig::plug
