using System.Diagnostics;
using System.Numerics;
using BenchmarkDotNet.Attributes;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Benchmarks;

/// <summary>One solved state of a circuit of 60 devices, from scratch and with a fault put in, beside a dense LU and ngspice.</summary>
[MemoryDiagnoser]
public class SolveBenchmarks
{
    private const int SpiceRuns = 2000;

    private readonly SixtyDevices _circuit = new();
    private readonly string _once = Path.GetTempFileName();
    private readonly string _often = Path.GetTempFileName();
    private Network[] _faulty = [];
    private int _next;

    [GlobalSetup]
    public void Prepare()
    {
        var (network, state) = (_circuit.Network, _circuit.Running);
        _faulty = [.. FaultCatalogue.Of(_circuit.Circuit).Select(f => network.With(f.Alterations)).Where(n => n.IsUpdate)];
        foreach (var faulty in _faulty)
        {
            faulty.Solve(state);
            faulty.Solve(state);
        }

        var netlist = SpiceNetlist.Ac(network, state);
        string Repeated(int times) =>
            netlist.Replace(
                ".print ac all",
                $".control\nrepeat {times}\nrun\ndestroy all\nend\nrun\nset numdgt=10\nset width=200\nprint all\n.endc",
                StringComparison.Ordinal
            );
        File.WriteAllText(_once, Repeated(0));
        File.WriteAllText(_often, Repeated(SpiceRuns));

        // What is faster must also be the same.
        var (ours, dense) = (network.SolveAlternating(state).Solved.Volts, new DenseMatrix(network, state).Volts());
        var worst = ours.Select((v, i) => (v - dense[i]).Magnitude).Max();
        Console.WriteLine(
            $"// {_circuit.Circuit.Devices.Length} devices, {_circuit.Circuit.Conductors.Length} conductors, {network.Size} "
                + $"nodes, {_faulty.Length} faults; worst difference to the dense solution {worst:g2} V"
        );
        if (worst > 1e-4)
        {
            throw new InvalidOperationException("The sparse and the dense solution differ.");
        }
    }

    [GlobalCleanup]
    public void CleanUp()
    {
        File.Delete(_once);
        File.Delete(_often);
    }

    [Benchmark(Baseline = true, Description = "state from scratch")]
    public object Scratch() => _circuit.Network.SolveAlternating(_circuit.Running);

    [Benchmark(Description = "state with the next single fault, updated")]
    public object Fault()
    {
        _next = (_next + 1) % _faulty.Length;
        return _faulty[_next].Solve(_circuit.Running);
    }

    [Benchmark(Description = "state with the next single fault, from scratch")]
    public object FaultFromScratch()
    {
        _next = (_next + 1) % _faulty.Length;
        return _faulty[_next].SolveAlternating(_circuit.Running);
    }

    [Benchmark(Description = "dense LU (MathNet.Numerics)")]
    public object Dense() => new DenseMatrix(_circuit.Network, _circuit.Running).Volts();

    [Benchmark(Description = "ngspice, a process")]
    public int SpiceProcess() => Spice(_once);

    [Benchmark(Description = "ngspice, one of 2000 in a process", OperationsPerInvoke = SpiceRuns)]
    public int SpiceAnalysis() => Spice(_often);

    private static int Spice(string file)
    {
        using var process =
            Process.Start(new ProcessStartInfo("ngspice", ["-b", file]) { RedirectStandardOutput = true, RedirectStandardError = true })
            ?? throw new InvalidOperationException("ngspice could not be started; install it.");
        var errors = process.StandardError.ReadToEndAsync();
        var length = process.StandardOutput.ReadToEnd().Length + errors.Result.Length;
        process.WaitForExit();
        return length > 1000 ? length : throw new InvalidOperationException("ngspice gave no voltages.");
    }
}
