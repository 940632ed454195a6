#include "app/slip/sums_grid.hpp"

#include <QBoxLayout>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>

#include <cmath>

#include "app/slip/words.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

const Figure* sum_of(const SumsColumn& column, const char* key) {
    for (const auto& f : column.sums) {
        if (f.key == key) return &f;
    }
    return nullptr;
}

/// What the best of a row is shown as; empty where none is, or all are alike.
QString best_of(const std::vector<SumsColumn>& columns, const SumsRow& row, const Wording& wording) {
    QString best;
    double at = 0;
    bool differ = false;
    if (row.better == SumsRow::Better::neither) return {};
    for (const auto& column : columns) {
        const auto* f = sum_of(column, row.key);
        if (f == nullptr) continue;
        const auto shown = text_of(jig::show(f->kind, f->value, wording));
        const double v = row.better == SumsRow::Better::more ? -f->value : std::abs(f->value);
        differ = differ || (!best.isEmpty() && shown != best);
        if (!best.isEmpty() && v >= at) continue;
        best = shown;
        at = v;
    }
    return differ ? best : QString();
}

}  // namespace

void lay_sums(QVBoxLayout* box, QWidget* page, const SumsGrid& all, const Wording& wording) {
    auto* grid = new QGridLayout();
    grid->setHorizontalSpacing(4);
    grid->setVerticalSpacing(5);
    box->addLayout(grid);
    auto* why =
        new QLabel("A figure's reasoning opens when you click it. The best of each row is strong.", page);
    why->setObjectName("sums-why");
    why->setWordWrap(true);
    why->setFont(word_font(9.5));
    why->setMinimumHeight(44);
    why->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    std::vector<SumsRow> rows;
    for (const auto& row : all.rows) {
        bool any = false;
        for (const auto& column : all.columns) any = any || sum_of(column, row.key) != nullptr;
        if (any) rows.push_back(row);
    }
    const auto plain = [&](const QString& text, double size) {
        auto* label = new QLabel(text, page);
        label->setFont(word_font(size));
        label->setWordWrap(true);
        return label;
    };
    for (std::size_t r = 0; r < rows.size(); ++r)
        grid->addWidget(plain(rows[r].name, 9.5), static_cast<int>(r) + 1, 0);
    for (std::size_t i = 0; i < all.columns.size(); ++i) {
        const auto& of = all.columns[i];
        const int column = static_cast<int>(i) + 1;
        auto* word = plain(of.name + (of.taken ? ", taken" : ""), 9.5);
        word->setFont(word_font(9.5, of.taken));
        word->setAlignment(Qt::AlignHCenter | Qt::AlignTop);
        word->setToolTip(of.tip);
        grid->addWidget(word, 0, column);
        grid->setColumnStretch(column, 1);
        for (std::size_t r = 0; r < rows.size(); ++r) {
            const auto* f = sum_of(of, rows[r].key);
            if (f == nullptr) {
                if (of.untried.isEmpty()) continue;
                auto* none = plain("not solved", 9);
                none->setAlignment(Qt::AlignCenter);
                none->setToolTip(of.untried);
                grid->addWidget(none, static_cast<int>(r) + 1, column);
                continue;
            }
            auto* figure = new QToolButton(page);
            figure->setObjectName("sum");
            figure->setProperty("column", of.key);
            figure->setProperty("sum", rows[r].key);
            figure->setText(text_of(jig::show(f->kind, f->value, wording)));
            auto font = figure_font(9.5);
            font.setBold(figure->text() == best_of(all.columns, rows[r], wording));
            figure->setFont(font);
            figure->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
            const auto whole =
                QString("%1, %2: %3, %4")
                    .arg(of.name, rows[r].name, figure->text(), text_of(worded(f->reason, wording)));
            figure->setToolTip(text_of(worded(f->reason, wording)));
            figure->setAccessibleName(whole);
            QObject::connect(figure, &QToolButton::clicked, why, [why, whole] { why->setText(whole); });
            grid->addWidget(figure, static_cast<int>(r) + 1, column);
        }
        if (!of.obstacle.isEmpty()) {
            grid->addWidget(plain(of.obstacle, 9), 1, column, std::max<int>(1, static_cast<int>(rows.size())),
                            1);
        } else if (!of.taken) {
            auto* take = new QPushButton("Take it", page);
            take->setObjectName("take-" + of.key);
            take->setAccessibleName(QString("Take %1").arg(of.name));
            QObject::connect(take, &QPushButton::clicked, page, [take_it = all.take, i] { take_it(i); });
            grid->addWidget(take, static_cast<int>(rows.size()) + 1, column);
        }
    }
    box->addWidget(why);
}

}  // namespace jig::app
