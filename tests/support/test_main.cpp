// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/test_class.h"

#include <QtTest>
#include <cstdio>
#include <filesystem>
#ifdef IBUKI_TEST_OF_WINDOW
#include <QApplication>
using Application = QApplication;
#else
#include <QCoreApplication>
using Application = QCoreApplication;
#endif

namespace ibuki::test {

std::vector<TestClass>& testClasses() {
    static std::vector<TestClass> all;
    return all;
}

Registered::Registered(const std::string& file, const std::string& suffix,
                       std::function<std::unique_ptr<QObject>()> make) {
    testClasses().push_back({std::filesystem::path(file).stem().string() + suffix, std::move(make)});
}

} // namespace ibuki::test

int main(int argc, char** argv) {
    const std::string wanted = argc > 1 ? argv[1] : "";
    for (const auto& one : ibuki::test::testClasses()) {
        if (one.name != wanted) continue;
        std::vector<char*> rest(argv, argv + argc);
        rest.erase(rest.begin() + 1); // the class is ours, the rest is Qt Test's
        int count = static_cast<int>(rest.size());
        rest.push_back(nullptr);
        const Application application(count, rest.data());
        const auto test = one.make();
        return QTest::qExec(test.get(), count, rest.data());
    }
    std::fprintf(stderr, "Name one of the test classes:\n");
    for (const auto& one : ibuki::test::testClasses()) std::fprintf(stderr, "    %s\n", one.name.c_str());
    return 2;
}
