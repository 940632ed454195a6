// Scene and section of a job, made away from the interface thread where they are large.
#pragma once

#include <QObject>
#include <QString>
#include <QThreadPool>

#include <optional>
#include <vector>

#include "app/ribbon/section.hpp"
#include "app/stand/scene.hpp"

namespace jig::app {

class Drawing : public QObject {
    Q_OBJECT
  public:
    struct Asked {
        Job job;
        Findings findings;
        Stage stage = Stage::brief;
        const Ink* ink = nullptr;  ///< outlives it
        Wording wording;
        View view;
        bool scene = true;         ///< else the section alone
        bool frame_again = false;  ///< the view is to be fitted to it
    };
    struct Made {
        Stage stage = Stage::brief;
        std::optional<Scene> scene;
        Section2 section;
        bool frame_again = false;
        QString refused;  ///< why there is no scene although one was asked for; else empty
    };

    explicit Drawing(QObject* parent);
    /// Waits for what is being drawn.
    ~Drawing() override;

    /// Small things are drawn before this returns, so that a new stage never stands beside an old picture.
    /// Large ones follow; of those that wait only the newest is drawn.
    void ask(Asked asked);
    [[nodiscard]] bool busy() const { return busy_; }

  signals:
    void made(const std::shared_ptr<jig::app::Drawing::Made>& drawn);

  private:
    Made make(const Asked& asked);
    void start(Asked asked);

    QThreadPool pool_;
    std::optional<Asked> next_;
    bool busy_ = false;
    std::vector<Corner> last_;  ///< corners of the last scene; of whoever draws, one at a time
    std::uint64_t revision_ = 0;
};

}  // namespace jig::app
