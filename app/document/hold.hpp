// Who has a file: held as long as the program lives, whatever way it ends.
#pragma once

#include <optional>
#include <QString>

namespace jig::app {

/// Holds a file for this one owner. The kernel lets go of it when the program ends, also by a crash, so that
/// nothing depends on process numbers; on a shared folder other machines see it too.
class Hold {
  public:
    Hold(Hold&& other) noexcept;
    Hold& operator=(Hold&& other) noexcept;
    Hold(const Hold&) = delete;
    Hold& operator=(const Hold&) = delete;
    ~Hold();

    /// None where somebody else has it. `words` say who we are, for them. Where the folder takes no note of
    /// ours nobody can write the file there either, and the hold is an empty one.
    [[nodiscard]] static std::optional<Hold> take(const QString& file, const QString& words);
    /// What the one who has it says of himself; empty where nobody has it.
    [[nodiscard]] static QString holder(const QString& file);
    /// "somebody on this machine since 14:05": what we say of ourselves.
    [[nodiscard]] static QString ourselves();
    [[nodiscard]] const QString& file() const { return file_; }

  private:
    Hold(QString file, QString note, int handle);
    void let_go();
    QString file_, note_;
    int handle_ = -1;
};

/// The file that a name stands for, links followed; the name itself while there is none yet.
[[nodiscard]] QString real_file(const QString& path);

}  // namespace jig::app
