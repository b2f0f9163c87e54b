using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Electrical;

/// <summary>A fault put into the healthy circuit's solution gives what solving the faulty circuit from scratch gives.</summary>
public class LowRankUpdateTests
{
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_single_fault_updated_is_every_single_fault_solved(string name)
    {
        var circuit = FamilySamples.Of(name);
        var healthy = Network.Of(circuit);
        var simulator = new Simulator(healthy);
        var rest = simulator.Start().State;
        var states = circuit
            .Compiled()
            .RunUp.Starts.Take(2)
            .Select(s => simulator.Do(rest, [.. s.Prepare, s.Act]).State)
            .Append(rest)
            .Distinct()
            .ToList();
        var (updated, all) = (0, 0);
        foreach (var faulty in FaultCatalogue.Of(circuit).Select(f => healthy.With(f.Alterations)).Where(n => n.IsUpdate))
        {
            foreach (var state in states)
            {
                faulty.Solve(state);
                var update = faulty.Solve(state);
                var scratch = faulty.SolveAlternating(state).Solved;
                var direct = healthy.HasDirectSupply ? faulty.SolveDirect(state).Solved : null;
                all++;
                updated += faulty.IsUpdated(state) ? 1 : 0;
                for (var n = 0; n < faulty.Size; n++)
                {
                    // A hundredth of what a meter shows; what floats on leaks alone (an unearthed secondary) has no more digits either way.
                    (update.NodeVolts(n) - scratch.Volts[n]).Magnitude.ShouldBeLessThan(
                        1e-3,
                        $"{name}: {string.Join(" + ", faulty.Alterations)}, node {n}"
                    );
                    // An unearthed direct supply hangs on insulation of 10 Gohm alone: what it is to earth has fewer digits either way.
                    update.DirectVolts(n).ShouldBe(direct?.Volts[n] ?? 0, 1e-2);
                }
            }
        }

        // Solving from scratch is for the few faults that open the only hold of a point; otherwise this compares a solution with itself.
        all.ShouldBeGreaterThan(30);
        updated.ShouldBeGreaterThan(all * 3 / 4);
    }

    [Fact]
    public void Opening_the_only_hold_of_a_point_is_not_left_to_rounding()
    {
        var pattern = new SparsePattern(2, [(0, 1)]);
        var lu = new SparseLu<double>(pattern);
        lu.AddBranch(pattern.Place(0, -1), 1);
        lu.AddBranch(pattern.Place(0, 1), 2000);
        lu.Add(1, 1, Network.PointLeak);
        lu.Factor();
        new LowRankUpdate<double>(lu, [new BranchChange<double>(0, 1, -2000)]).Soundness.ShouldBeLessThan(1e-8);
        new LowRankUpdate<double>(lu, [new BranchChange<double>(0, -1, 1)]).Soundness.ShouldBeGreaterThan(0.1);
    }
}
