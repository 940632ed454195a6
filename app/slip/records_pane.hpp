// A table of one list of the job's records: what every such pane does alike, once.
#pragma once

#include <QBoxLayout>

#include <algorithm>
#include <functional>
#include <optional>
#include <set>

#include "app/document/document.hpp"
#include "app/slip/record_table.hpp"
#include "app/stages/panes.hpp"

namespace jig::app {

/// Heirs say how a record reads as cells and how typed words change it; adding, taking away, moving, typing
/// and pasting, their names in the undo and their refusals are done here.
template <class Record>
class RecordsPane : public Pane {
  public:
    struct Rules {
        QString table;           ///< object name
        QString said;            ///< for screen readers
        QString record;          ///< one of them, in the names of undo steps: "log entry"
        std::size_t fewest = 0;  ///< that must stay
        int rows_low = 3, rows_high = 12;
        bool paste_adds = false;  ///< what is pasted is added; else it takes the place of what is selected
    };

    /// The list that the table shows, found anew in every job.
    using List = std::function<std::vector<Record>&(Job&)>;

    RecordsPane(Document& document, List list, Rules rules, std::vector<RecordColumn> columns, bool by_hand,
                QWidget* parent)
        : Pane(parent), document_(document), list_(std::move(list)), rules_(std::move(rules)) {
        table_ = new RecordTable(std::move(columns), by_hand, this);
        table_->setObjectName(rules_.table);
        table_->setAccessibleName(rules_.said);
        box_ = new QVBoxLayout(this);
        box_->setContentsMargins(0, 0, 0, 0);
        box_->addWidget(table_);
        connect(table_, &RecordTable::remove_wanted, this, [this](int row) { take_away(row); });
        connect(table_, &RecordTable::moved, this, [this](int from, int to) {
            auto next = records();
            auto moved = next[static_cast<std::size_t>(from)];
            next.erase(next.begin() + from);
            next.insert(next.begin() + to, std::move(moved));
            set("move " + rules_.record, std::move(next));
        });
        connect(table_, &RecordTable::typed, this, [this](int row, int column, const QString& text) {
            auto next = records();
            if (const auto why = type(next[static_cast<std::size_t>(row)], column, text.trimmed()))
                return refuse(*why);
            set(QString("change %1 %2").arg(rules_.record).arg(row + 1), std::move(next));
        });
        connect(table_, &RecordTable::pasted, this, [this](const QList<QStringList>& rows) {
            std::vector<Record> next;
            for (int r = 0; r < rows.size(); ++r) {
                Record record;
                for (int c = 0; c < std::min<int>(table_->columnCount(), static_cast<int>(rows[r].size()));
                     ++c) {
                    if (const auto why = type(record, c, rows[r][c].trimmed()))
                        return refuse(QString("Line %1 of what was pasted: %2").arg(r + 1).arg(*why));
                }
                next.push_back(std::move(record));
            }
            next = laid_in(std::move(next));
            if (next.size() < rules_.fewest)
                return refuse(QString("This table needs %1 lines at least").arg(rules_.fewest));
            set("paste " + rules_.record, std::move(next));
        });
    }
    void refresh(const Wording& wording) override {
        wording_ = wording;
        headings();
        QList<QStringList> rows;
        for (const auto& record : records()) rows << cells(record);
        table_->show_rows(rows);
        fit_height(table_, rules_.rows_low, rules_.rows_high);
    }

  protected:
    [[nodiscard]] virtual QStringList cells(const Record& record) const = 0;
    /// Changes the record as the words say; why not, where they cannot be read.
    [[nodiscard]] virtual std::optional<QString> type(Record& record, int column,
                                                      const QString& text) const = 0;
    /// What else follows in the job when the list has changed.
    virtual void settle(Job&) const {}
    /// Titles with units, where a column has one.
    virtual void headings() {}

    [[nodiscard]] const std::vector<Record>& records() const {
        // The list is reached through a job that can be changed; this one is only read.
        return list_(const_cast<Job&>(document_.job()));
    }
    void set(const QString& name, std::vector<Record> records) {
        auto job = document_.job();
        list_(job) = std::move(records);
        settle(job);
        document_.replace(name, std::move(job));
    }
    void add(const QString& name, std::size_t before, Record record) {
        auto next = records();
        next.insert(next.begin() + static_cast<std::ptrdiff_t>(std::min(before, next.size())),
                    std::move(record));
        set(name, std::move(next));
    }
    void take_away(int row) {
        auto next = records();
        if (row < 0 || row >= static_cast<int>(next.size())) return;
        if (next.size() <= rules_.fewest)
            return refuse(QString("This table needs %1 lines at least").arg(rules_.fewest));
        next.erase(next.begin() + row);
        set("take " + rules_.record + " away", std::move(next));
    }
    void refuse(const QString& why) {
        emit document_.refused(why);
        refresh(wording_);
    }
    [[nodiscard]] Document& document() const { return document_; }
    [[nodiscard]] RecordTable& table() const { return *table_; }
    [[nodiscard]] const Wording& wording() const { return wording_; }
    [[nodiscard]] QVBoxLayout* box() const { return box_; }

  private:
    /// The whole list with what was pasted in its place: at the end where it adds; in place of the lines that
    /// are selected; over one that is chosen and those that follow; in place of all where nothing is.
    [[nodiscard]] std::vector<Record> laid_in(std::vector<Record> pasted) const {
        auto all = records();
        const auto at = [&](int row) { return all.begin() + row; };
        std::set<int> chosen;
        for (const auto& index : table_->selectionModel()->selectedRows()) chosen.insert(index.row());
        const int count = static_cast<int>(all.size()), more = static_cast<int>(pasted.size());
        if (rules_.paste_adds) {
            all.insert(all.end(), pasted.begin(), pasted.end());
        } else if (chosen.empty() || static_cast<int>(chosen.size()) == count || *chosen.rbegin() >= count) {
            all = std::move(pasted);
        } else {
            const int from = *chosen.begin(),
                      to = chosen.size() > 1 ? *chosen.rbegin() + 1 : std::min(count, from + more);
            all.erase(at(from), at(to));
            all.insert(at(from), pasted.begin(), pasted.end());
        }
        return all;
    }

    Document& document_;
    List list_;
    Rules rules_;
    RecordTable* table_;
    QVBoxLayout* box_;
    Wording wording_;
};

/// Reads a quantity as the maker's units write it; why not, where it is none of this kind.
inline std::optional<QString> read_cell(Kind kind, const char* what, const QString& text,
                                        const Wording& wording, double& value) {
    const auto read = read_quantity(kind, text.toStdString(), wording);
    if (!read) return QString("\"%1\" is no %2").arg(text, what);
    value = *read;
    return std::nullopt;
}

}  // namespace jig::app
