using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <content>From the incoming supply to the head of power and control circuit: isolator, protection, control supply, monitoring.</content>
public abstract partial record Starter
{
    private IEnumerable<Device> FeedDevices()
    {
        yield return Device(
            "INC",
            "supply",
            "panel",
            "Incoming supply",
            ("lineVolts", LineVolts),
            ("frequency", Frequency),
            ("sourceOhms", Ratings.FeederOhms(LineVolts, FeedAmps)),
            (
                "system",
                System switch
                {
                    SupplySystem.Delta => "delta",
                    SupplySystem.CornerEarthed => "corner-earthed",
                    SupplySystem.HighLeg => "high-leg",
                    _ => "star",
                }
            )
        );
        yield return Device(
            "Q1",
            "isolator",
            "panel",
            "Panel isolator",
            ("poles", IsolatorPoles),
            ("ratedAmps", Math.Max(25, Math.Ceiling(FeedAmps * 2)))
        );
        yield return Protection switch
        {
            MotorProtection.Breaker => Device(
                "F1",
                "circuit-breaker",
                "panel",
                "Motor circuit protection",
                ("ratedAmps", Ratings.Fuse(FeedAmps)),
                ("shuntVolts", HasShuntRelease ? CoilVolts : 0),
                ("contacts", Contacts(BreakerContact))
            ),
            MotorProtection.MotorBreaker => Device(
                "Q2",
                "motor-breaker",
                "panel",
                "Motor protection",
                ("settingAmps", FullLoadAmps),
                ("contacts", Contacts("13-14")),
                ("tripContact", TripLamp ? "yes" : "no")
            ),
            _ => Device("F1", "fuse", "panel", "Motor fuses", ("poles", FusePoles), ("ratedAmps", Ratings.Fuse(FeedAmps))),
        };
        foreach (var device in ControlFeedDevices())
        {
            yield return device;
        }

        if (EmergencyStop)
        {
            yield return Device(
                "S0",
                "emergency-stop",
                "station",
                "Emergency stop",
                ("contacts", Contacts(["11-12", .. MoreStopContacts, ShuntTrip ? "23-24" : null]))
            );
        }

        if (VoltageMonitor)
        {
            yield return Device(
                "KF1",
                "voltage-monitor",
                "panel",
                "Supply monitoring",
                ("lineVolts", LineVolts),
                ("neutral", MonitorNeutral ? "yes" : "no"),
                ("indicators", MonitorPerCause ? "per cause" : "one")
            );
        }

        if (Permissive != Permissive.None)
        {
            yield return Device("B8", "process-switch", "station", "Permissive 1", ("senses", "pressure"));
        }

        if (Permissive is Permissive.TwoInSeries or Permissive.TwoInParallel)
        {
            yield return Device("B9", "process-switch", "station", "Permissive 2", ("senses", "flow"));
        }

        if (TripLamp)
        {
            yield return Lamp("H2", "Overload tripped", "yellow");
        }

        if (PowerLamp)
        {
            yield return Lamp("H3", "Control supply on", "white");
        }
    }

    /// <summary>Whether the motor's breaker has a shunt release, and its auxiliary contact; null for none.</summary>
    private protected virtual bool HasShuntRelease => ShuntTrip;

    private protected virtual string? BreakerContact => null;

    /// <summary>Contacts of the emergency stop beyond the one in the control path.</summary>
    private protected virtual string[] MoreStopContacts => [];

    /// <summary>Current that the whole starter takes at full load; families with several motors say more.</summary>
    private protected virtual double FeedAmps => FullLoadAmps;

    private IEnumerable<Device> ControlFeedDevices()
    {
        if (ControlProtection == ControlProtection.SeparateBreaker)
        {
            yield return HasOwnSource || Control == ControlSupply.LineToLine
                ? Device("F3", "circuit-breaker", "panel", "Control breaker", ("poles", 2), ("ratedAmps", 4))
                : Device("F3", "circuit-breaker", "panel", "Control breaker", ("poles", 1), ("ratedAmps", 4));
        }
        else if (ControlProtection == ControlProtection.Fuse)
        {
            yield return Device(
                "F3",
                "fuse",
                "panel",
                "Control fuse",
                ("poles", 1),
                ("ratedAmps", Control == ControlSupply.Transformer ? 4 : 2)
            );
            if (HasOwnSource)
            {
                yield return Device("F4", "fuse", "panel", "Primary fuses", ("poles", 2), ("ratedAmps", 4));
            }
        }

        if (HasTransformer)
        {
            yield return Device(
                "T1",
                "control-transformer",
                "panel",
                "Control transformer",
                ("primaryVolts", LineVolts),
                ("secondaryVolts", IsDirect ? BetweenVolts : CoilVolts),
                ("va", 250),
                ("tap", Earthing == ControlEarthing.CentreTap ? "centre" : "none")
            );
        }

        if (IsDirect)
        {
            yield return Device(
                "PS1",
                "dc-supply",
                "panel",
                "DC supply",
                ("inputVolts", HasTransformer ? BetweenVolts : LineVolts),
                ("outputVolts", CoilVolts)
            );
        }

        if (HasOwnSource && Earthing != ControlEarthing.Unearthed)
        {
            yield return Device("XE", "earth-link", "panel", "Earthing link of the control supply");
        }
    }

    private IEnumerable<CircuitPath> FeedPaths()
    {
        if (VoltageMonitor)
        {
            yield return Power("Monitoring", Protected, [], Series("KF1:L1,L2,L3"));
            if (MonitorNeutral)
            {
                yield return Power("Monitored neutral", ["INC:N"], [], Series("KF1:N"));
            }
        }

        if (HasOwnSource)
        {
            var fed = ControlProtection switch
            {
                ControlProtection.SeparateBreaker => "F3:1-2,3-4",
                ControlProtection.Fuse => "F4:1-2,3-4",
                _ => null,
            };
            yield return Wiring.Control(
                HasTransformer ? "Control transformer" : "DC supply",
                [FirstTap, SecondTap],
                [],
                Series(fed, HasTransformer ? "T1:1,2" : "PS1:L,N")
            );
            if (HasTransformer && IsDirect)
            {
                yield return Wiring.Control("DC supply", ["T1:3", "T1:4"], [], Series("PS1:L,N"));
            }

            if (Earthing != ControlEarthing.Unearthed)
            {
                yield return Wiring.Control(
                    "Earthing",
                    [Earthing == ControlEarthing.CentreTap ? "T1:0" : Return],
                    ["INC:PE"],
                    Series("XE:1-2")
                );
            }
        }
        else if (Control == ControlSupply.LineToLine && ControlProtection == ControlProtection.SeparateBreaker)
        {
            yield return Wiring.Control("Return", [SecondTap], [], Series("F3:3-4"));
        }
    }
}
