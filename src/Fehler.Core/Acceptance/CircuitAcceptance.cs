using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Acceptance;

/// <summary>
/// Takes a circuit in by trying it: what is accepted can be drawn, solved, isolated, operated and diagnosed later. A circuit that cannot is
/// refused with one sentence and its place.
/// </summary>
public static class CircuitAcceptance
{
    /// <summary>Above this a voltage is a mistake of the description rather than one of the plant, V.</summary>
    private const double ImpossibleVolts = 100_000;

    /// <summary>Reads a circuit file and tries the circuit.</summary>
    /// <exception cref="CircuitException">The file is none, or the circuit cannot be used; says where and why.</exception>
    public static CompiledCircuit Read(string json)
    {
        var compiled = CircuitFile.Read(json).Compile();
        Try(compiled);
        return compiled;
    }

    /// <summary>Draws, solves, isolates and operates a circuit.</summary>
    /// <exception cref="CircuitException">It cannot be used; says where and why.</exception>
    public static void Try(CompiledCircuit compiled)
    {
        Step("$.paths", "cannot be drawn", () => compiled.Sheets.All(s => double.IsFinite(s.Width) && double.IsFinite(s.Height)));
        Step("$.devices", "cannot be solved: some voltage comes out as no number", () => IsPlausible(compiled));
        Step("$.devices", "cannot be isolated", () => compiled.Isolation.Points.Length >= 0);
        Step("$.paths", "cannot be tried", () => compiled.RunUp.Starts.Length >= 0 && compiled.FunctionTest.Steps.Length > 0);
        Step("$.devices", "has no fault that could be looked for", () => compiled.Faults.Count > 0);
    }

    private static bool IsPlausible(CompiledCircuit compiled)
    {
        var solution = new Simulator(compiled.Network).Start().Solution;
        return compiled.Circuit.Conductors.All(c =>
            solution.Volts(c.From).Magnitude < ImpossibleVolts
            && solution.DcVolts(c.From, compiled.Circuit.Earth).Magnitude.Value < ImpossibleVolts
        );
    }

    /// <summary>Whatever goes wrong inside while a circuit is tried is a reason to refuse the circuit.</summary>
    private static void Step(string path, string problem, Func<bool> isFine)
    {
        bool fine;
        try
        {
            fine = isFine();
        }
        catch (RefusedException)
        {
            throw;
        }
        catch (Exception e)
            when (e
                    is InvalidOperationException
                        or ArgumentException
                        or KeyNotFoundException
                        or IndexOutOfRangeException
                        or NullReferenceException
                        or DivideByZeroException
                        or OverflowException
                        or FormatException
            )
        {
            throw new CircuitException(path, $"{problem}: {e.Message}");
        }

        if (!fine)
        {
            throw new CircuitException(path, $"{problem}; compare it with the drawing.");
        }
    }
}
