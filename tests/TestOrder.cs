using System.Globalization;
using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCaseOrderer(typeof(Fehler.Tests.TestOrder))]

namespace Fehler.Tests;

/// <summary>
/// Tests of one class run in the order of their names, the same on every machine: the runner's own order depends on the folder of the
/// checkout. With FEHLER_TEST_ORDER=number they run in an order drawn with that seed, which shows tests that lean on another.
/// </summary>
public sealed class TestOrder : ITestCaseOrderer
{
    public IReadOnlyCollection<TTestCase> OrderTestCases<TTestCase>(IReadOnlyCollection<TTestCase> testCases)
        where TTestCase : notnull, ITestCase
    {
        var byName = testCases.OrderBy(t => t.TestCaseDisplayName, StringComparer.Ordinal).ToArray();
        if (int.TryParse(Environment.GetEnvironmentVariable("FEHLER_TEST_ORDER"), CultureInfo.InvariantCulture, out var seed))
        {
            new Random(seed).Shuffle(byName);
        }

        return byName;
    }
}
