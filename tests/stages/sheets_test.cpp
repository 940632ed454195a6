// Sheets are counted, bought and cut from one layout.
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

#include "core/stages/plug/sheets.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using fixtures::shop;
using fixtures::worked_out;

namespace {

double figure(const Findings& f, const std::string& key) {
    for (const auto& one : f.figures(Stage::plug)) {
        if (one.key == key) return one.value;
    }
    FAIL("no figure " << key);
    return 0;
}

double bought(const Findings& f, Stage stage, const std::string& what) {
    double sum = 0;
    for (const auto& m : f.run->materials) {
        if (m.stage == stage && m.what == what && m.kind == Kind::count) sum += m.amount;
    }
    return sum;
}

std::size_t laid(const SheetSet& set) {
    std::size_t sum = set.too_large.size();
    for (const auto& sheet : set.sheets) sum += sheet.pieces.size();
    return sum;
}

}  // namespace

TEST_CASE("sheets of a plug are one number in the slip, in the ledger and in the cut files") {
    for (const char* name : {"cello-case", "pavilion-petal"}) {
        for (const auto route : {Route::slabs, Route::skeleton}) {
            auto job = fixtures::demo(name);
            job.plug.route = route;
            INFO(name << " " << file_word(route));
            const auto f = worked_out(job, Depth::quick);
            REQUIRE(f.plug_sheets);
            REQUIRE(f.plug_sheets->size() == 1);
            const auto& set = f.plug_sheets->front();
            const auto cut = plug::cutting(f.plug->plans, job.plug, 1, shop());
            REQUIRE(cut.stocks.size() == 1);
            CHECK(laid(set) == cut.stocks.front().pieces.size());
            const auto sheets = static_cast<double>(set.sheets.size());
            CHECK(figure(f, "sheets") == sheets);
            CHECK(bought(f, Stage::plug, cut.stocks.front().board.name) >= sheets);
            // Never fewer than their area alone asks for.
            double area = 0;
            for (const auto& piece : cut.stocks.front().pieces) {
                if (piece.inside < 0) area += std::abs(signed_area(piece.outline.front()));
            }
            CHECK(sheets >= std::ceil(area / (set.rules.length * set.rules.width)));
            // The plug's cost and the ledger's follow.
            double cost = 0, hours = 0;
            for (const auto& plan : f.plug->plans) {
                for (const auto& n : plan.needs) cost += n.amount * n.price;
                for (const auto& w : plan.works) hours += w.hours;
            }
            CHECK(figure(f, "cost") == Approx(cost + hours * shop().rate("labour")));
            const auto by_area = worked_out(job);
            CHECK_FALSE(by_area.plug_sheets);
            const double more = sheets - figure(by_area, "sheets");
            const double price = cut.stocks.front().board.price;
            double ribs = 0;
            if (f.rib_sheets && !f.rib_sheets->sheets.empty()) {
                const auto& board = need(shop().boards, job.back.board, "test");
                ribs = board.price *
                       (bought(f, Stage::back, board.name) - bought(by_area, Stage::back, board.name));
            }
            CHECK(f.run->ledgers[1].materials - by_area.run->ledgers[1].materials ==
                  Approx(more * price + ribs).margin(1e-6));
            // On the sheet of routes stands the same.
            JobBoard board;
            const auto routes = board.routes(board.lay(job, fixtures::shared_shop()), quiet);
            for (const auto& plan : *routes) {
                if (plan.route != route || job.plug.by_piece) continue;
                CHECK(value_of(plan.figures, "sheets") == sheets);
            }
        }
    }
}

TEST_CASE("plugs of one stock are cut from the same sheets, those of two from their own") {
    auto job = fixtures::demo("cello-case-whole");
    job.plug.by_piece = true;
    job.plug.route = Route::slabs;
    job.plug.piece_routes = {Route::slabs, Route::slabs};
    const auto f = worked_out(job, Depth::quick);
    REQUIRE(f.plug);
    REQUIRE(f.plug->plans.size() == 2);
    REQUIRE(f.plug_sheets->size() == 1);
    const double together = static_cast<double>(f.plug_sheets->front().sheets.size());
    double sum = 0;
    for (const auto& plan : f.plug->plans) sum += value_of(plan.figures, "sheets");
    CHECK(sum == together);
    CHECK(bought(f, Stage::plug, job.plug.board) == together);
    // Two plugs, and each piece says of which it is.
    for (const auto& sheet : f.plug_sheets->front().sheets) {
        for (const auto& piece : sheet.pieces) {
            bool named = false;
            for (const auto& plan : f.plug->plans) named = named || piece.name.rfind(plan.body, 0) == 0;
            CHECK(named);
        }
    }
    job.plug.piece_routes = {Route::slabs, Route::skeleton};
    const auto mixed = worked_out(job, Depth::quick);
    REQUIRE(mixed.plug_sheets->size() == 2);
    const auto cut = plug::cutting(mixed.plug->plans, job.plug, 1, shop());
    CHECK(cut.stocks[0].board.name == job.plug.board);
    CHECK(cut.stocks[1].board.name == job.plug.skeleton.board);
    for (std::size_t k = 0; k < 2; ++k) {
        CHECK(laid(mixed.plug_sheets->at(k)) == cut.stocks[k].pieces.size());
        CHECK(mixed.plug_sheets->at(k).rules.length == cut.stocks[k].board.sheet_length);
    }
}

TEST_CASE(
    "what fills a skeleton is bought beside its ribs, of one stock too, and no piece is left unbought") {
    auto job = fixtures::small_job();
    job.plug.route = Route::skeleton;
    const auto amounts = [](const Findings& f) {
        std::vector<double> out;
        for (const auto& n : f.plug->plans.front().needs) {
            if (n.kind == Kind::count && n.note.rfind("sheets of", 0) == 0) out.push_back(n.amount);
        }
        return out;
    };
    job.plug.skeleton.board = job.plug.skeleton.fill;
    const auto by_area = amounts(worked_out(job));
    const auto f = worked_out(job, Depth::quick);
    const auto laid_out = amounts(f);
    REQUIRE(by_area.size() == 2);
    REQUIRE(laid_out.size() == 2);
    CHECK(laid_out[0] == static_cast<double>(f.plug_sheets->front().sheets.size()));
    CHECK(laid_out[1] == by_area[1]);
    // Sheets too small for any rib: all of them by area.
    auto own = shop();
    for (auto& b : own.boards) {
        if (b.name == job.plug.skeleton.board) b.sheet_length = b.sheet_width = 0.1;
    }
    const auto small = evaluate(job, own, quiet, Depth::quick);
    REQUIRE(small.plug);
    REQUIRE_FALSE(small.plug_sheets->front().too_large.empty());
    const auto filled = amounts(evaluate(job, own, quiet, Depth::stages));
    REQUIRE(filled.size() == 2);
    CHECK(amounts(small)[1] == filled[1]);
    CHECK(amounts(small)[0] != filled[1]);
    double large = 0;
    const auto cut = plug::cutting(small.plug->plans, job.plug, 1, own);
    for (const auto& piece : cut.stocks.front().pieces) {
        const auto& names = small.plug_sheets->front().too_large;
        if (std::find(names.begin(), names.end(), piece.name) != names.end())
            large += net_area(piece.outline);
    }
    CHECK(amounts(small)[0] >= static_cast<double>(small.plug_sheets->front().sheets.size()) + large / 0.01);
}

TEST_CASE("a back's ribs are bought by the sheets that they lie on") {
    const auto job = fixtures::demo("cello-case");
    const auto f = worked_out(job, Depth::quick);
    REQUIRE(f.back->crate);
    REQUIRE(f.rib_sheets);
    CHECK(laid(*f.rib_sheets) >= f.back->crate->ribs.size());
    CHECK(bought(f, Stage::back, job.back.board) == static_cast<double>(f.rib_sheets->sheets.size()));
}

TEST_CASE("what moves no piece lays none out again") {
    JobBoard board;
    auto job = fixtures::small_job();
    const auto on = [&] { return board.lay(job, fixtures::shared_shop()); };
    const auto before = board.plug_sheets(on(), quiet);
    REQUIRE_FALSE(before->empty());
    job.plug.build_up += 1e-4;
    job.plug.barrier = job.plug.barrier == Barrier::none ? Barrier::epoxy : Barrier::none;
    job.part.pot_loss += 0.01;
    CHECK(board.plug_sheets(on(), quiet) == before);
    job.plug.margin += 0.005;
    CHECK(board.plug_sheets(on(), quiet) != before);
}

TEST_CASE("discs of all grits are one line of what is bought") {
    for (const char* name : {"cello-case", "radar-dome", "pavilion-petal"}) {
        const auto f = worked_out(fixtures::demo(name));
        int lines = 0;
        double count = 0, plug = 0;
        for (const auto& m : f.run->materials) {
            if (m.what != "grit discs") continue;
            ++lines;
            count += m.amount;
        }
        for (const auto& plan : f.plug->plans) {
            for (const auto& n : plan.needs) plug += n.what == "grit discs" ? n.amount : 0;
        }
        INFO(name);
        CHECK(lines == 1);
        // The plug's, and half as many again for the mould.
        CHECK(count == Approx(plug + std::ceil(plug / 2)));
    }
}
