using System.Text.Json.Nodes;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Circuits;

/// <summary>
/// Circuit files damaged by chance, always the same way for one seed: each is refused with one sentence and its place, or it is a circuit
/// that works. Nothing else may come out.
/// </summary>
public class MutatedCircuitTests
{
    private static readonly JsonNode?[] Nonsense =
    [
        null,
        0,
        -1,
        1e300,
        0.5,
        "",
        "KM1:A1",
        "\0",
        "\uD800",
        new string('x', 5_000),
        true,
        new JsonArray(),
        new JsonObject(),
        new JsonArray(null, 7, "a"),
    ];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public void A_damaged_circuit_is_refused_in_one_sentence_or_works(int seed)
    {
        var chance = new Random(seed);
        var samples = new[] { Starters.LineToNeutral, FamilySamples.Of(FamilySamples.Names.Select(n => n.Data).First()) };
        var (refused, accepted) = (0, 0);
        for (var i = 0; i < 60; i++)
        {
            var json = Mutated(CircuitFile.Write(samples[i % samples.Length]), chance);
            try
            {
                var compiled = CircuitAcceptance.Read(json);
                compiled.Sheets.ShouldNotBeEmpty();
                var course = new Simulator(compiled.Network).Start();
                compiled.Circuit.Conductors.ShouldAllBe(c => double.IsFinite(course.Solution.Volts(c.From, c.To).Magnitude));
                accepted++;
            }
            catch (CircuitException e)
            {
                e.Message.Length.ShouldBeInRange(10, 900, json);
                e.Message.ShouldNotContain("\n");
                refused++;
            }
        }

        // Both happen with every seed: a reader that took everything or nothing would not pass.
        refused.ShouldBeGreaterThan(5);
        accepted.ShouldBeGreaterThan(1);
    }

    private static string Mutated(string json, Random chance)
    {
        var root = JsonNode.Parse(json)!;
        for (var times = chance.Next(1, 3); times > 0; times--)
        {
            var all = Nodes(root).ToList();
            var victim = all[chance.Next(all.Count)];
            switch (chance.Next(3))
            {
                case 0:
                    Replace(victim, Nonsense[chance.Next(Nonsense.Length)]?.DeepClone());
                    break;
                case 1:
                    Remove(victim);
                    break;
                default:
                    Replace(victim, all[chance.Next(all.Count)].Node?.DeepClone());
                    break;
            }
        }

        return root.ToJsonString();
    }

    private readonly record struct Place(JsonNode Parent, string? Name, int Index, JsonNode? Node);

    private static IEnumerable<Place> Nodes(JsonNode node) =>
        node switch
        {
            JsonObject o => o.ToList().SelectMany(p => (p.Value is null ? [] : Nodes(p.Value)).Prepend(new Place(o, p.Key, 0, p.Value))),
            JsonArray a => a.ToList().SelectMany((v, i) => (v is null ? [] : Nodes(v)).Prepend(new Place(a, null, i, v))),
            _ => [],
        };

    private static void Replace(Place place, JsonNode? value)
    {
        if (place.Parent is JsonObject o)
        {
            o[place.Name!] = value;
        }
        else
        {
            ((JsonArray)place.Parent)[place.Index] = value;
        }
    }

    private static void Remove(Place place)
    {
        if (place.Parent is JsonObject o)
        {
            o.Remove(place.Name!);
        }
        else
        {
            ((JsonArray)place.Parent).RemoveAt(place.Index);
        }
    }
}
