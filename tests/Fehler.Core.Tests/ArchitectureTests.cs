using ArchUnitNET.Fluent;
using ArchUnitNET.Loader;
using Fehler.Core.Circuits;
using Fehler.Data;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Fehler.Core.Tests;

/// <summary>Dependencies point one way: Web to Data to Core.</summary>
public class ArchitectureTests
{
    private static readonly ArchUnitNET.Domain.Architecture Everything = new ArchLoader()
        .LoadAssemblies(typeof(Circuit).Assembly, typeof(FehlerDb).Assembly, typeof(Program).Assembly).Build();

    [Fact]
    public void The_core_knows_nothing_of_data_or_web() =>
        Check(Types().That().ResideInAssembly(typeof(Circuit).Assembly).Should().NotDependOnAny(
            Types().That().ResideInAssembly(typeof(FehlerDb).Assembly).Or().ResideInAssembly(typeof(Program).Assembly)));

    [Fact]
    public void Data_knows_nothing_of_web() =>
        Check(Types().That().ResideInAssembly(typeof(FehlerDb).Assembly).Should().NotDependOnAny(Types().That().ResideInAssembly(typeof(Program).Assembly)));

    [Fact]
    public void The_core_refers_to_no_web_or_database_library() =>
        typeof(Circuit).Assembly.GetReferencedAssemblies().Select(a => a.Name!)
            .ShouldAllBe(n => !n.StartsWith("Microsoft.AspNetCore") && !n.StartsWith("Microsoft.EntityFrameworkCore"));

    private static void Check(IArchRule rule) => rule.HasNoViolations(Everything).ShouldBeTrue(string.Join("\n", rule.Evaluate(Everything).Where(r => !r.Passed).Select(r => r.Description)));
}
