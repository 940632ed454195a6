// Whole ways of making something beside each other: a column each, a row for each sum, the best of it strong.
#pragma once

#include <functional>
#include <QString>
#include <vector>

#include "core/base/units.hpp"
#include "core/stages/stage.hpp"

class QVBoxLayout;
class QWidget;

namespace jig::app {

struct SumsColumn {
    QString key;  ///< by which tests and screen readers find what is in it
    QString name, tip;
    bool taken = false;
    std::vector<Figure> sums;
    QString untried;   ///< why a sum is missing; empty for a blank
    QString obstacle;  ///< why there are none at all; empty where there are
};

struct SumsRow {
    const char* key;
    const char* name;
    enum class Better { less, more, neither } better = Better::less;
};

struct SumsGrid {
    std::vector<SumsColumn> columns;
    std::vector<SumsRow> rows;
    std::function<void(std::size_t column)> take;
};

/// Lays it into `box` of `page`, the line in which a sum's reasoning opens under it. Rows that no column has
/// a sum for are left out.
void lay_sums(QVBoxLayout* box, QWidget* page, const SumsGrid& grid, const Wording& wording);

}  // namespace jig::app
