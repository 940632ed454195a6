#include "app/window/start.hpp"

#include <QBoxLayout>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QToolButton>

#include "app/slip/sentence_view.hpp"
#include "app/slip/widgets.hpp"
#include "app/stages/sentences.hpp"
#include "app/theme/ink.hpp"
#include "app/window/settings.hpp"

namespace jig::app {
namespace {

constexpr std::array kShopKeys{"people", "shift",  "lift",   "router_x",   "router_y",    "router_z",
                               "oven_x", "oven_y", "oven_z", "door_width", "door_height", "pump"};

/// Of the oven, what belongs to it and not to one load.
constexpr std::array kOvenKeys{"build", "power", "mapped_at", "map"};

/// A button with a name and what it is for, as large as its words.
class Card : public QPushButton {
  public:
    Card(const QString& name, const QString& words, QWidget* parent) : QPushButton(parent) {
        setObjectName("card");
        setAccessibleName(name + ": " + words);
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(14, 12, 14, 12);
        for (auto* label :
             {wrapped(name, this, word_font(13, true)), wrapped(words, this, word_font(10.5))}) {
            label->setAttribute(Qt::WA_TransparentForMouseEvents);
            label->setStyleSheet("background: transparent");
            box->addWidget(label);
        }
        box->addStretch();
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        setFixedHeight(static_cast<int>(132 * text_scale()));
    }
};

QToolButton* word(const QString& text, const char* name, QWidget* parent) {
    auto* out = new QToolButton(parent);
    out->setObjectName("word");
    out->setProperty("start", QString(name));
    out->setText(text);
    out->setFont(word_font());
    out->setFocusPolicy(Qt::StrongFocus);
    out->setCursor(Qt::PointingHandCursor);
    out->setMinimumHeight(24);
    return out;
}

}  // namespace

Job fresh_job() {
    Job job;
    const auto kept = QSettings().value("shop").toString().toStdString();
    if (kept.empty()) return job;
    try {
        auto figures = parse_json("the shop's own figures", kept);
        // As it was kept before there was more than Brief's.
        if (!figures.contains("brief")) figures = Json{{"brief", std::move(figures)}};
        return patched(job, figures);
    } catch (const InputError&) {
        return job;  // written by hand and not understood: the usual figures serve
    }
}

void keep_shop_figures(const Job& job) {
    const auto all = job_to_json(job);
    Json kept;
    for (const char* key : kShopKeys) kept["brief"][key] = all.at("brief").at(key);
    const auto& oven = all.at("heat").at("oven");
    for (const char* key : kOvenKeys) kept["heat"]["oven"][key] = oven.at(key);
    QSettings().setValue("shop", QString::fromStdString(kept.dump()));
}

void keep_shop_oven(const Job& job) {
    auto shop = fresh_job();
    shop.heat.oven = job.heat.oven;
    keep_shop_figures(shop);
}

StartSheet::StartSheet(const Shop& shop, QWidget* parent) : QWidget(parent), shop_(shop) {
    setObjectName("start");
    setAccessibleName("The start");
    new QVBoxLayout(this);
    layout()->setContentsMargins(0, 0, 0, 0);
}

void StartSheet::renew(const Wording& wording) {
    wording_ = wording;
    build();
}

void StartSheet::build() {
    clear_layout(layout());
    auto* scroll = new QScrollArea(this);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    layout()->addWidget(scroll);
    sheet_ = new QWidget(scroll);
    auto* box = new QVBoxLayout(sheet_);
    box->setContentsMargins(48, 28, 48, 28);
    box->setSpacing(18);
    box->addWidget(wrapped("What is to be made?", sheet_, word_font(18, true)));
    box->addWidget(
        wrapped("Lay a file on the bench from anywhere: drop it on this window. Meshes and STEP become "
                "the shape, drawings its outline, jobs open.",
                sheet_, word_font(11)));
    auto* cards = new QHBoxLayout();
    cards->setSpacing(12);
    box->addLayout(cards);
    const auto card = [&](const char* key, const QString& name, const QString& words, auto go) {
        auto* out = new Card(name, words, sheet_);
        out->setProperty("start", QString(key));
        connect(out, &QPushButton::clicked, this, go);
        cards->addWidget(out, 1);
    };
    card("own", "Your own shape",
         "An STL, OBJ, PLY or STEP file of the part. It is measured, mended and laid on "
         "the stand.",
         [this] { emit own_shape_wanted(); });
    card("drawn", "Drawn here", "A tray, a turned shape, a foil or a body by stations, from a few measures.",
         [this] { emit drawn_wanted(); });
    card("copy", "A copy of a part", "The part in your hands, measured by stations, becomes the plug.",
         [this] { emit copy_wanted(); });
    card("demo", "A demo job", "The shell of a cello travel case, worked out from brief to log.",
         [this] { emit demo_wanted("cello-case"); });
    auto* more = new QHBoxLayout();
    more->setSpacing(16);
    auto* walk = word("The first walk: ten notes from a shape to printed sheets", "walk", sheet_);
    connect(walk, &QToolButton::clicked, this, &StartSheet::walk_wanted);
    more->addWidget(walk);
    more->addStretch(1);
    more->addWidget(new QLabel("More demos:", sheet_));
    for (const auto& [name, file] : {std::pair{"the whole cello case", "cello-case-whole"},
                                     std::pair{"a weather-radar dome", "radar-dome"},
                                     std::pair{"a pavilion roof petal", "pavilion-petal"}}) {
        auto* button = word(name, file, sheet_);
        connect(button, &QToolButton::clicked, this, [this, f = QString(file)] { emit demo_wanted(f); });
        more->addWidget(button);
    }
    box->addLayout(more);

    auto* lower = new QHBoxLayout();
    lower->setSpacing(48);
    box->addLayout(lower);
    auto* left = new QVBoxLayout();
    left->setSpacing(6);
    lower->addLayout(left, 1);
    left->addWidget(wrapped("The last jobs", sheet_, word_font(12, true)));
    const auto recent = recent_jobs();
    if (recent.isEmpty())
        left->addWidget(wrapped("None yet. Jobs that you save are listed here.", sheet_, word_font()));
    for (const auto& file : recent) {
        auto* button = word(QFileInfo(file).completeBaseName(), "recent", sheet_);
        button->setToolTip(file);
        connect(button, &QToolButton::clicked, this, [this, file] { emit recent_wanted(file); });
        left->addWidget(button, 0, Qt::AlignLeft);
    }
    left->addStretch();
    auto* right = new QVBoxLayout();
    right->setSpacing(6);
    lower->addLayout(right, 1);
    right->addWidget(wrapped("What your shop has", sheet_, word_font(12, true)));
    right->addWidget(wrapped("Said once, it stands in every new job. A job may say otherwise in its Brief.",
                             sheet_, word_font(10)));
    const auto scratch = std::make_shared<Job>(fresh_job());
    auto* view = new SentenceView(nullptr, sheet_);
    const auto show = [this, view, scratch] {
        auto all = brief_sentences(*scratch, shop_);
        view->show_sentences({all.back()}, job_to_json(*scratch), wording_);
    };
    view->set_take([scratch, show](const Blank& blank, const Json& value) -> QString {
        try {
            *scratch = patched(*scratch, word_patch(blank, job_to_json(*scratch), value));
            keep_shop_figures(*scratch);
            show();
            return {};
        } catch (const InputError& e) {
            return QString::fromStdString(e.problem() + "; " + e.mend());
        }
    });
    show();
    right->addWidget(view);
    auto* look = new QHBoxLayout();
    look->addWidget(new QLabel("Shown in", sheet_));
    auto* units =
        word(wording_.system == UnitSystem::metric ? "metric units" : "imperial units", "units", sheet_);
    auto* money = word("money in " + QString::fromStdString(wording_.currency), "currency", sheet_);
    connect(units, &QToolButton::clicked, this, [this] { emit act_wanted("units"); });
    connect(money, &QToolButton::clicked, this, [this] { emit act_wanted("currency"); });
    look->addWidget(units);
    look->addWidget(money);
    look->addStretch();
    right->addLayout(look);
    right->addStretch();
    box->addStretch();
    scroll->setWidget(sheet_);
}

}  // namespace jig::app
