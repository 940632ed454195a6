// Verb, files and options of one call of the headless command.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jig::batch {

struct Arguments {
    std::string verb;
    std::vector<std::string> files;
    std::map<std::string, std::string> options;  ///< without the leading --
    bool help = false;

    [[nodiscard]] std::optional<std::string> option(const std::string& name) const;
    /// A plain number; throws InputError where it is none or outside [low, high].
    [[nodiscard]] double number(const std::string& name, double otherwise, double low, double high) const;
    [[nodiscard]] double need_number(const std::string& name, double low, double high) const;
    /// yes or no; throws InputError for anything else.
    [[nodiscard]] bool flag(const std::string& name, bool otherwise = false) const;
    /// So many numbers with commas between.
    [[nodiscard]] std::vector<double> need_numbers(const std::string& name, std::size_t count,
                                                   const char* example) const;
    /// The same for each time that it is given, however many numbers; none where it is not.
    [[nodiscard]] std::vector<std::vector<double>> every_numbers(const std::string& name) const;
    /// Three numbers with commas, not all zero.
    [[nodiscard]] std::array<double, 3> need_direction(const std::string& name) const;
    /// The one file that the verb works on.
    [[nodiscard]] const std::string& file(const char* what) const;
};

/// One option of a verb.
struct Option {
    std::string name;   ///< without its --
    std::string value;  ///< what is written behind it, as usage shows it
    std::string help;
    bool needed = false;
    bool repeats = false;  ///< may be given more than once; its values are kept with ; between
};

/// What a verb is called with.
struct Form {
    std::string verb, file;  ///< its name, and the file it works on as usage shows it
    std::vector<Option> options;
    [[nodiscard]] std::string usage() const;
};

/// Throws InputError for verbs and options that there are not, without their value, or given twice.
Arguments read_arguments(const std::vector<std::string>& words, const std::vector<Form>& forms);

}  // namespace jig::batch
