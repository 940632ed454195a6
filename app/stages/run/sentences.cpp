#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> run_sentences(const Job& job, const Shop& shop) {
    return {
        {"An hour costs",
         job.run.labour > 0
             ? Piece(or_none(quantity_word("/run/labour", "labour", Kind::money, 0, 150),
                             "the shop's own rate"))
             : Piece(choice_word("/run/labour", "labour",
                                 {{0.0, QString("the shop's %1").arg(QString::number(shop.rate("labour")))},
                                  {30.0, "30"},
                                  {40.0, "40"},
                                  {50.0, "50"},
                                  {65.0, "65"},
                                  {80.0, "80"}})),
         "; the day starts at",
         choice_word("/run/start", "start of the day",
                     {{6 * 3600.0, "6:00"},
                      {7 * 3600.0, "7:00"},
                      {8 * 3600.0, "8:00"},
                      {9 * 3600.0, "9:00"},
                      {10 * 3600.0, "10:00"}}),
         "with", quantity_word("/brief/people", "people", Kind::count, 1, 8), "people for",
         quantity_word("/brief/shift", "shift", Kind::hours, 4 * 3600, 12 * 3600), ", for",
         quantity_word("/brief/pulls", "pulls", Kind::count, 1, 300), "pulls."}};
}

}  // namespace jig::app
