#include "batch/arguments.hpp"

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include <algorithm>
#include <charconv>
#include <cmath>

#include "core/base/error.hpp"

namespace jig::batch {
namespace {

double plain_number(const std::string& where, const std::string& text) {
    double value = 0;
    const auto* end = text.data() + text.size();
    const auto [stop, bad] = std::from_chars(text.data(), end, value);
    if (bad != std::errc{} || stop != end || !std::isfinite(value))
        throw InputError(where, "\"" + text + "\" is no number", "write it plainly, such as 0.05");
    return value;
}

}  // namespace

std::optional<std::string> Arguments::option(const std::string& name) const {
    const auto at = options.find(name);
    if (at == options.end()) return std::nullopt;
    return at->second;
}

double Arguments::number(const std::string& name, double otherwise, double low, double high) const {
    return option(name) ? need_number(name, low, high) : otherwise;
}

double Arguments::need_number(const std::string& name, double low, double high) const {
    const auto text = option(name);
    if (!text)
        throw InputError("--" + name, "it is missing", "add it; see jigshell-batch " + verb + " --help");
    const double value = plain_number("--" + name, *text);
    if (value < low || value > high)
        throw InputError("--" + name, fmt::format("{:g} lies outside {:g} to {:g}", value, low, high),
                         "give it a value inside");
    return value;
}

std::vector<double> Arguments::need_numbers(const std::string& name, std::size_t count,
                                            const char* example) const {
    const auto text = option(name);
    if (!text) throw InputError("--" + name, "it is missing", std::string("give numbers such as ") + example);
    std::vector<double> out;
    std::size_t at = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const auto comma = i + 1 < count ? text->find(',', at) : text->size();
        if (comma == std::string::npos || comma < at)
            throw InputError("--" + name, fmt::format("{} numbers with commas are needed", count),
                             std::string("write them as ") + example);
        out.push_back(plain_number("--" + name, text->substr(at, comma - at)));
        at = comma + 1;
    }
    return out;
}

std::vector<std::vector<double>> Arguments::every_numbers(const std::string& name) const {
    std::vector<std::vector<double>> out;
    const auto text = option(name);
    if (!text) return out;
    // Given more than once they come with semicolons between.
    for (std::size_t from = 0; from <= text->size();) {
        const auto to = std::min(text->find(';', from), text->size());
        auto& numbers = out.emplace_back();
        for (auto at = from; at <= to;) {
            const auto comma = std::min(text->find(',', at), to);
            numbers.push_back(plain_number("--" + name, text->substr(at, comma - at)));
            at = comma + 1;
        }
        from = to + 1;
    }
    return out;
}

std::array<double, 3> Arguments::need_direction(const std::string& name) const {
    const auto v = need_numbers(name, 3, "0,0,1");
    if (std::hypot(v[0], v[1], v[2]) < 1e-12)
        throw InputError("--" + name, "the direction has no length", "give one such as 0,0,1");
    return {v[0], v[1], v[2]};
}

const std::string& Arguments::file(const char* what) const {
    if (files.empty())
        throw InputError(verb, fmt::format("{} is missing", what),
                         "name it after the verb; see jigshell-batch " + verb + " --help");
    if (files.size() > 1)
        throw InputError(verb, "it works on one file and \"" + files[1] + "\" is a second",
                         "call it once for each");
    return files.front();
}

bool Arguments::flag(const std::string& name, bool otherwise) const {
    const auto text = option(name).value_or(otherwise ? "yes" : "no");
    if (text != "yes" && text != "no")
        throw InputError("--" + name, "\"" + text + "\" is neither yes nor no", "write yes or no");
    return text == "yes";
}

std::string Form::usage() const {
    auto out = verb + " " + file;
    for (const auto& o : options) {
        const auto one = "--" + o.name + " " + o.value;
        out += o.needed ? " " + one : " [" + one + "]";
    }
    return out;
}

Arguments read_arguments(const std::vector<std::string>& words, const std::vector<Form>& forms) {
    CLI::App app;
    app.set_help_flag();  // said by ourselves
    Arguments out;
    // Options are taken by their verb alone, with all that was given, so that a second is seen.
    std::map<std::string, std::map<std::string, std::vector<std::string>>> given;
    bool help = false;
    const auto ask_help = [&](CLI::App* of) { of->add_flag("-h,--help", help); };
    ask_help(&app);
    for (const auto& form : forms) {
        auto* verb = app.add_subcommand(form.verb);
        ask_help(verb);
        verb->allow_extras();
        verb->add_option("files", out.files);
        for (const auto& o : form.options)
            verb->add_option("--" + o.name, given[form.verb][o.name])
                ->expected(1)
                ->allow_extra_args(false)
                ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
    }
    app.allow_extras();
    try {
        app.parse(std::vector<std::string>(words.rbegin(), words.rend()));
    } catch (const CLI::ParseError& e) {
        const std::string said = e.what();
        const auto colon = said.find(':');
        const auto where = said.rfind("--", 0) == 0 ? said.substr(0, colon) : std::string("jigshell-batch");
        throw InputError(where, where.rfind("--", 0) == 0 ? "its value is missing" : said,
                         where.rfind("--", 0) == 0 ? "write it behind the option" : "see --help");
    }
    out.help = help;
    const auto verbs = app.get_subcommands();
    const auto left = verbs.empty() ? app.remaining() : verbs.front()->remaining();
    if (!verbs.empty()) out.verb = verbs.front()->get_name();
    bool files_only = false;
    for (const auto& word : left) {
        if (files_only) {
            out.files.push_back(word);
            continue;
        }
        files_only = word == "--";
        if (files_only) continue;
        if (verbs.empty() && word.rfind('-', 0) != 0)
            throw InputError("jigshell-batch", "there is no verb \"" + word + "\"",
                             "see jigshell-batch --help");
        if (word.rfind('-', 0) == 0)
            throw InputError(word.substr(0, word.find('=')), "there is no such option here",
                             "see jigshell-batch " + (out.verb.empty() ? "" : out.verb + " ") + "--help");
        out.files.push_back(word);
    }
    for (const auto& [name, values] : given[out.verb]) {
        if (values.empty()) continue;
        const auto repeats = std::any_of(forms.begin(), forms.end(), [&](const Form& form) {
            return form.verb == out.verb &&
                   std::any_of(form.options.begin(), form.options.end(),
                               [&](const Option& o) { return o.name == name && o.repeats; });
        });
        if (values.size() > 1 && !repeats) throw InputError("--" + name, "it is given twice", "give it once");
        auto& all = out.options[name];
        for (const auto& value : values) all += (all.empty() ? "" : ";") + value;
    }
    return out;
}

}  // namespace jig::batch
