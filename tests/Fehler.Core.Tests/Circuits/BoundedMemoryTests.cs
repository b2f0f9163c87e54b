using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Tests.Circuits;

/// <summary>What was worked out before is kept while it is asked for, and never takes more than it may.</summary>
public class BoundedMemoryTests
{
    private const long ValueBytes = 920,
        MostBytes = 100_000;

    [Fact]
    public void It_stays_within_its_bound_and_keeps_what_is_asked_for()
    {
        var memory = new BoundedMemory<int, string>(MostBytes, _ => ValueBytes);
        var workedOut = 0;
        string Ask(int key) =>
            memory.GetOrAdd(
                key,
                k =>
                {
                    workedOut++;
                    return $"{k}";
                }
            );

        for (var key = 0; key < 1000; key++)
        {
            Ask(key).ShouldBe($"{key}");
            Ask(-1).ShouldBe("-1");
            memory.Bytes.ShouldBeLessThanOrEqualTo(MostBytes);
        }

        // Each was worked out once, the one that is asked for all the time among them; what was asked for once and long ago is gone.
        workedOut.ShouldBe(1001);
        memory.TryGet(-1, out _).ShouldBeTrue();
        memory.TryGet(0, out _).ShouldBeFalse();
        memory.TryGet(999, out var last).ShouldBeTrue();
        last.ShouldBe("999");
    }

    [Fact]
    public void Everybody_gets_the_one_that_is_kept()
    {
        var memory = new BoundedMemory<int, object>(long.MaxValue, _ => 1);
        var given = new object[64];
        Parallel.For(0, given.Length, i => given[i] = memory.GetOrAdd(7, _ => new object()));
        given.ShouldAllBe(g => ReferenceEquals(g, given[0]));
        memory.Add(7, new object()).ShouldBeSameAs(given[0]);
    }

    /// <summary>A state notes what it is looked up by: one that was made from another must not have that one's note.</summary>
    [Fact]
    public void A_state_that_was_made_from_another_is_looked_up_by_itself()
    {
        var rest = CircuitState.AtRest(Starters.LineToNeutral);
        var (code, first) = (rest.GetHashCode(), rest.Devices[0]);
        var other = rest.With(0, first with { Position = first.Position + 1 });
        other.ShouldNotBe(rest);
        var back = other.With(0, first);
        back.ShouldBe(rest);
        back.GetHashCode().ShouldBe(code);
        rest.Lift(new ConductorEnd("7", new TerminalId("KM1", "A1"))).ShouldNotBe(rest);
    }

    /// <summary>
    /// A fault's solution says by itself what the fault changes: asked branch by branch it is the one from scratch. Open, loose and bridged.
    /// </summary>
    [Fact]
    public void Branch_currents_of_an_updated_solution_are_those_from_scratch()
    {
        var circuit = Starters.LineToNeutral;
        var healthy = Network.Of(circuit);
        var state = CircuitState.AtRest(circuit);
        var conductor = circuit.Conductors.First(c => c.From == circuit.Reference || c.To == circuit.Reference);
        Alteration[] alterations =
        [
            new ConductorSeriesOhms(conductor.Id, 500),
            new Bridge(circuit.Conductors[3].From, circuit.Conductors[^1].To, 40),
        ];
        foreach (var alteration in alterations)
        {
            var faulty = healthy.With([alteration]);
            faulty.Solve(state);
            var (update, scratch) = (faulty.Solve(state), new Solution(faulty, state, faulty.SolveAlternating(state).Solved, null));
            faulty.IsUpdated(state).ShouldBeTrue();
            for (var branch = 0; branch < faulty.Branches.Length; branch++)
            {
                (update.BranchAmps(branch) - scratch.BranchAmps(branch)).Magnitude.ShouldBeLessThan(1e-4, $"{alteration}, branch {branch}");
            }
        }
    }
}
