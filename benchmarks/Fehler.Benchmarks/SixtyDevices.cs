using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Benchmarks;

/// <summary>Twelve stations on one motor, and what a plant adds to such a circuit in thirty years: 60 devices, running.</summary>
internal sealed class SixtyDevices
{
    public SixtyDevices()
    {
        Circuit = new MultiStation
        {
            Tag = "BM-60",
            Title = "Green chain",
            Stations = 12,
            RunLamp = true,
            StopLamp = true,
            EmergencyStop = true,
        }.Build();
        for (var n = 1; Circuit.Devices.Length < 60; n++)
        {
            // A permissive in series with a Stop and a lamp over the contactor's coil, in turn.
            Circuit = CircuitEditor.Apply(
                Circuit,
                n % 2 == 1
                    ? new InsertBeside(
                        $"S{1 + n % 12}1:21-22",
                        Beside.SeriesAfter,
                        $"B{50 + n}",
                        "process-switch",
                        "21-22",
                        "station",
                        "Guard closed"
                    )
                    : new InsertBeside("KM1:A1-A2", Beside.Parallel, $"H{50 + n}", "pilot-lamp", "X1-X2", "station", "Running")
            );
        }

        Network = Network.Of(Circuit);
        var start = Circuit.Compile().RunUp.Starts[0];
        var simulator = new Simulator(Network);
        Running = simulator.Do(simulator.Start().State, [.. start.Prepare, start.Act]).State;
    }

    public Circuit Circuit { get; }

    public Network Network { get; }

    /// <summary>Start held, motor running.</summary>
    public CircuitState Running { get; }
}
