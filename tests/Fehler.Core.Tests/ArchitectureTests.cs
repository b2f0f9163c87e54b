using System.Reflection;
using ArchUnitNET.Fluent;
using ArchUnitNET.Loader;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Data;
using Fehler.Desk;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Fehler.Core.Tests;

/// <summary>Dependencies point one way: Web to Data to Core.</summary>
public class ArchitectureTests
{
    private static readonly ArchUnitNET.Domain.Architecture Everything = new ArchLoader()
        .LoadAssemblies(typeof(Circuit).Assembly, typeof(FehlerDb).Assembly, typeof(Program).Assembly)
        .Build();

    [Fact]
    public void The_core_knows_nothing_of_data_or_web() =>
        Check(
            Types()
                .That()
                .ResideInAssembly(typeof(Circuit).Assembly)
                .Should()
                .NotDependOnAny(Types().That().ResideInAssembly(typeof(FehlerDb).Assembly).Or().ResideInAssembly(typeof(Program).Assembly))
        );

    [Fact]
    public void Data_knows_nothing_of_web() =>
        Check(
            Types()
                .That()
                .ResideInAssembly(typeof(FehlerDb).Assembly)
                .Should()
                .NotDependOnAny(Types().That().ResideInAssembly(typeof(Program).Assembly))
        );

    /// <summary>What a device takes along may need neither a server nor a database.</summary>
    [Fact]
    public void What_both_hosts_show_knows_the_core_alone() =>
        typeof(FieldDesk)
            .Assembly.GetReferencedAssemblies()
            .Select(a => a.Name!)
            .Where(n => n.StartsWith("Fehler", StringComparison.Ordinal) || n.StartsWith("Microsoft", StringComparison.Ordinal))
            .ShouldBe(["Fehler.Core"]);

    [Fact]
    public void The_core_refers_to_no_web_or_database_library() =>
        typeof(Circuit)
            .Assembly.GetReferencedAssemblies()
            .Select(a => a.Name!)
            .ShouldAllBe(n => !n.StartsWith("Microsoft.AspNetCore") && !n.StartsWith("Microsoft.EntityFrameworkCore"));

    /// <summary>Layers of the core, from the ground up: each may use those before it.</summary>
    private static readonly string[] Layers =
    [
        "Language",
        "Circuits",
        "Options",
        "Trade",
        "Electrical",
        "Operation",
        "Faults",
        "Jobs",
        "Diagnosis",
        "Procedures",
        "Upkeep",
    ];

    /// <summary>What stands beside the layers, with the highest layer that it may use.</summary>
    private static readonly Dictionary<string, string> Beside = new()
    {
        ["Drawing"] = "Circuits",
        ["Families"] = "Trade",
        ["Editing"] = "Operation",
        ["Bench"] = "Procedures",
        ["Devices"] = "Upkeep",
        ["Acceptance"] = "Procedures",
    };

    /// <summary>What stands beside may use nothing else there, but for this: a circuit is accepted by drawing it too.</summary>
    private static readonly (string, string) Allowed = ("Acceptance", "Drawing");

    public static TheoryData<string, string> Forbidden =>
        [
            .. Layers
                .SelectMany((layer, i) => Layers.Skip(i + 1).Concat(Beside.Keys).Select(above => (layer, above)))
                .Concat(
                    Beside.SelectMany(b =>
                        Layers
                            .SkipWhile(l => l != b.Value)
                            .Skip(1)
                            .Concat(Beside.Keys.Where(k => k != b.Key))
                            .Select(other => (b.Key, other))
                    )
                )
                .Where(x => x != Allowed)
                .Select(x => new TheoryDataRow<string, string>(x.Item1, x.Item2)),
        ];

    [Theory, MemberData(nameof(Forbidden))]
    public void Inside_the_core_each_layer_uses_only_those_below(string layer, string above) =>
        Check(
            Types()
                .That()
                .ResideInNamespace($"Fehler.Core.{layer}")
                .Should()
                .NotDependOnAny(Types().That().ResideInNamespace($"Fehler.Core.{above}"))
        );

    [Fact]
    public void The_rule_sees_what_a_layer_does_use() =>
        Types()
            .That()
            .ResideInNamespace("Fehler.Core.Operation")
            .Should()
            .NotDependOnAny(Types().That().ResideInNamespace("Fehler.Core.Circuits"))
            .HasNoViolations(Everything)
            .ShouldBeFalse();

    [Fact]
    public void Every_folder_of_the_core_is_a_layer_or_stands_beside_one() =>
        typeof(Circuit)
            .Assembly.GetTypes()
            .Select(t => t.Namespace)
            .Where(n => n?.StartsWith("Fehler.Core.", StringComparison.Ordinal) == true)
            .Distinct()
            .ShouldBe(Layers.Concat(Beside.Keys).Select(l => $"Fehler.Core.{l}"), ignoreOrder: true);

    [Fact]
    public void No_table_of_circuits_is_kept_where_nobody_owns_it() =>
        typeof(Circuit)
            .Assembly.GetTypes()
            .SelectMany(t => t.GetFields(BindingFlags.Static | BindingFlags.NonPublic | BindingFlags.Public))
            .Where(f =>
                f.FieldType.IsGenericType
                && f.FieldType.GetGenericArguments().Any(a => a == typeof(Circuit) || a == typeof(CompiledCircuit) || a == typeof(Device))
            )
            .Where(f => !typeof(Delegate).IsAssignableFrom(f.FieldType))
            .ShouldBeEmpty();

    private static void Check(IArchRule rule) =>
        rule.HasNoViolations(Everything)
            .ShouldBeTrue(string.Join("\n", rule.Evaluate(Everything).Where(r => !r.Passed).Select(r => r.Description)));
}
