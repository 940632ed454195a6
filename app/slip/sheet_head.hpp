// The head of a sheet that takes the stand's place: its name, the way back, and whether it is old.
#pragma once

#include <functional>
#include <QBoxLayout>

namespace jig::app {

struct SheetHead {
    QString key;  ///< its buttons are "key-close" and "key-renew", its words "key-old"
    QString name;
    std::function<void()> close;
    /// Where it is old: what is said of it, what the button that renews it says, and what that does.
    QString old = {}, renew_words = {};
    std::function<void()> renew = nullptr;
};

/// A page of a sheet with its head; what else stands on it goes below.
QVBoxLayout* page_with_head(QWidget* page, const SheetHead& head);

}  // namespace jig::app
