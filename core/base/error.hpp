// The one error that bad input raises. Only readers and validators throw it; a broken promise inside the
// program is an assertion instead.
#pragma once

#include <stdexcept>
#include <string>

namespace jig {

/// Says where the input is wrong, what is wrong with it and how a maker mends it, each as one sentence
/// fragment without a full stop, so that the window and the headless command can word it alike.
class InputError : public std::runtime_error {
  public:
    InputError(std::string where, std::string what, std::string mend);
    InputError(const InputError&) = default;
    InputError& operator=(const InputError&) = default;
    ~InputError() override;

    [[nodiscard]] const std::string& where() const { return where_; }
    [[nodiscard]] const std::string& problem() const { return what_; }
    [[nodiscard]] const std::string& mend() const { return mend_; }

  private:
    std::string where_, what_, mend_;
};

/// Thrown out of a long computation when its Progress asks it to stop. Not an error: nobody is told.
struct Cancelled {};

}  // namespace jig
