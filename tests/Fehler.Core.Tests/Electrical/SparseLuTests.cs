using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using MathNet.Numerics.LinearAlgebra;

namespace Fehler.Core.Tests.Electrical;

/// <summary>The sparse solver against the dense LU of a reference library (Math.NET Numerics).</summary>
public class SparseLuTests
{
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void Solves_what_a_dense_solver_solves(int seed)
    {
        const int size = 60;
        var random = new Random(seed);
        var links = Enumerable
            .Range(1, size - 1)
            .Select(i => (A: i, B: random.Next(i)))
            .Concat(Enumerable.Range(0, 25).Select(_ => (A: random.Next(size), B: random.Next(size))))
            .Where(l => l.A != l.B)
            .ToList();
        var pattern = new SparsePattern(size, links);
        var lu = new SparseLu<Complex>(pattern);
        var dense = Matrix<Complex>.Build.Dense(size, size);
        foreach (var (a, b) in links)
        {
            // Not symmetric in value, as a running motor's matrix is not.
            var y = new Complex(random.NextDouble() + 0.1, random.NextDouble());
            lu.Add(a, a, y);
            dense[a, a] += y;
            lu.Add(b, b, y * 1.1);
            dense[b, b] += y * 1.1;
            lu.Add(a, b, -y);
            dense[a, b] -= y;
            lu.Add(b, a, -y * 0.9);
            dense[b, a] -= y * 0.9;
        }

        for (var i = 0; i < size; i++)
        {
            lu.Add(i, i, new Complex(1e-3, 0));
            dense[i, i] += 1e-3;
        }

        var right = Enumerable.Range(0, size).Select(_ => new Complex(random.NextDouble(), random.NextDouble())).ToArray();
        var expected = dense.Solve(MathNet.Numerics.LinearAlgebra.Vector<Complex>.Build.DenseOfArray(right));
        lu.Factor();
        lu.Solve(right);
        for (var i = 0; i < size; i++)
        {
            (right[i] - expected[i]).Magnitude.ShouldBeLessThan(1e-8);
        }
    }

    [Fact]
    public void A_low_rank_update_reads_what_a_new_factorisation_reads() =>
        ReadsAsFactoredAnew(
            Starters.LineToNeutral,
            FaultCatalogue.Of(Starters.LineToNeutral).Select(f => ($"{f.Id} {f.Variant}", f.Alterations))
        );

    [Fact]
    public void So_do_two_faults_at_once()
    {
        var faults = FaultCatalogue.Of(Starters.LineToNeutral);
        var random = new Random(11);
        FaultMode Any() => faults[random.Next(faults.Count)];
        ReadsAsFactoredAnew(
            Starters.LineToNeutral,
            Enumerable.Range(0, 300).Select(_ => FaultMode.Both(Any(), Any())).Select(f => (f.Id, f.Alterations))
        );
    }

    [Fact]
    public void So_do_exchanged_wires()
    {
        // Between any two wires: two islands that only leaks held together lost every digit of a tenth of an ohm.
        var conductors = Starters.LineToNeutral.Conductors.Where(c => c.Wire != "PE").ToList();
        var random = new Random(3);
        Conductor Any() => conductors[random.Next(conductors.Count)];
        ReadsAsFactoredAnew(
            Starters.LineToNeutral,
            Enumerable
                .Range(0, 300)
                .Select(_ => (A: Any(), B: Any()))
                .Where(x => x.A != x.B)
                .Select(x => ($"{x.A.Id} with {x.B.Id}", Miswiring.Exchanged(x.A, x.B)))
        );
    }

    private static void ReadsAsFactoredAnew(Circuit circuit, IEnumerable<(string Name, ImmutableArray<Alteration> Alterations)> faults)
    {
        var healthy = Network.Of(circuit);
        var state = Starters.Healthy(circuit).Do(Starters.Healthy(circuit).Start().State, new Step("Q1", "off")).State;
        var random = new Random(5);
        var terminals = circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Where(t => t.Device != "INC").Distinct().ToArray();
        TerminalId Any() => terminals[random.Next(terminals.Length)];
        var pairs = circuit
            .Conductors.Select(c => (c.From, c.To))
            .Where(p => p.From.Device != "INC" && p.To.Device != "INC")
            .Concat(Enumerable.Range(0, 100).Select(_ => (From: Any(), To: Any())))
            .ToList();
        var table = new OhmTable(healthy, state);
        foreach (var (name, alterations) in faults)
        {
            var network = healthy.With(alterations);
            var quick = table.Read(network, [.. pairs]);
            var direct = network.OhmMeter(state);
            for (var i = 0; i < pairs.Count; i++)
            {
                var expected = direct(pairs[i].From, pairs[i].To);
                if (expected.IsOpen)
                {
                    double.IsInfinity(quick[i]).ShouldBeTrue($"{name}: {pairs[i]} reads {quick[i]}");
                }
                else
                {
                    // A tenth of a usual meter's last digit.
                    quick[i].ShouldBe(expected.Value, 0.01 + 1e-3 * expected.Value, $"{name}: {pairs[i]}");
                }
            }
        }
    }
}
