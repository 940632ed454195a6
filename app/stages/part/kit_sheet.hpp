// The part's kit: every ply flat on its roll, and in the order of laying.
#pragma once

#include <QScrollArea>

#include "app/theme/ink.hpp"
#include "core/job/job.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/part/kit.hpp"

class QLabel;

namespace jig::app {

class RecordTable;
class RollView;

class KitSheet : public QScrollArea {
    Q_OBJECT
  public:
    explicit KitSheet(QWidget* parent);
    void show_kit(std::shared_ptr<const part::Kit> kit, const Job& job, std::shared_ptr<const Shop> shop);
    void set_look(const Ink& ink, const Wording& wording);
    /// Says so where the sheet was worked out for a part that has changed since.
    void follow(const Job& now);
    [[nodiscard]] bool is_old() const { return old_; }
    /// The piece that is marked on its roll and in the table.
    [[nodiscard]] QString chosen() const { return chosen_; }

  signals:
    void close_wanted();
    void renew_wanted();
    void export_wanted(const QString& act);

  private:
    void rebuild();
    void choose(const QString& piece);
    [[nodiscard]] QString said() const;

    std::shared_ptr<const part::Kit> kit_;
    std::shared_ptr<const Shop> shop_;
    Job job_;
    bool old_ = false;
    QString chosen_;
    QList<RollView*> rolls_;
    RecordTable* table_ = nullptr;
    const Ink* ink_ = &app::ink(Light::day);
    Wording wording_;
};

}  // namespace jig::app
