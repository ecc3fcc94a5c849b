// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One program holds the test classes of a room; CTest runs each by the name of its file:
//     test_core_stats tst_compare [what Qt Test takes, such as the name of one function]

#include <QObject>
#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace ibuki::test {

struct TestClass {
    std::string name; ///< of its file: "tst_compare"
    std::function<std::unique_ptr<QObject>()> make;
};

/// All of the program, in no particular order.
std::vector<TestClass>& testClasses();

/// suffix: tells instances of one class apart, "_fresh".
struct Registered {
    Registered(const std::string& file, const std::string& suffix,
               std::function<std::unique_ptr<QObject>()> make);
};

} // namespace ibuki::test

#define IBUKI_TEST(Class)                                                                                    \
    static const ibuki::test::Registered registered##Class(__FILE__, "",                                     \
                                                           [] { return std::make_unique<Class>(); });
/// The same story on the demo project and on a new one.
#define IBUKI_STORY_ON_BOTH(Class)                                                                           \
    static const ibuki::test::Registered demo##Class(                                                        \
        __FILE__, "_demo", [] { return std::make_unique<Class>(ibuki::story::Where::demo); });               \
    static const ibuki::test::Registered fresh##Class(                                                       \
        __FILE__, "_fresh", [] { return std::make_unique<Class>(ibuki::story::Where::fresh); });
