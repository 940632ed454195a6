// What the part's printed sheet says in tables: what it carries, how its core is cut, where its bolts go.
#pragma once

#include <QString>
#include <QStringList>
#include <vector>

#include "core/base/units.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

struct PaperTable {
    QString heading, before;  ///< and a sentence before it, where there is one
    QStringList columns;
    QList<QStringList> rows;
    std::vector<double> widths;  ///< shares of the page
    std::vector<bool> right;     ///< columns of figures
};

/// Those that this job has anything for.
std::vector<PaperTable> part_tables(const Job& job, const Findings& findings, const Wording& wording);

}  // namespace jig::app
