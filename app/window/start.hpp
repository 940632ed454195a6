// The bench before anything lies on it: four ways in, the last jobs, and what the shop has.
#pragma once

#include <QWidget>

#include "core/job/job.hpp"
#include "core/shop/shop.hpp"

class QBoxLayout;

namespace jig::app {

class SentenceView;

class StartSheet : public QWidget {
    Q_OBJECT
  public:
    StartSheet(const Shop& shop, QWidget* parent);
    /// Reads the last jobs and the shop's figures anew.
    void renew(const Wording& wording);

  signals:
    void own_shape_wanted();
    void drawn_wanted();
    void copy_wanted();
    void demo_wanted(const QString& name);
    void recent_wanted(const QString& path);
    void walk_wanted();
    void act_wanted(const QString& act);

  private:
    void build();
    const Shop& shop_;
    Wording wording_;
    QWidget* sheet_ = nullptr;
};

/// An empty job with what the shop has, as the maker once said.
[[nodiscard]] Job fresh_job();
/// Keeps a job's figures of the shop (people, shift, lifting, router, oven, door, pump) for every new job.
void keep_shop_figures(const Job& job);
/// Of those only how a job's oven is built, its heater and its map.
void keep_shop_oven(const Job& job);

}  // namespace jig::app
