using Fehler.Core.Devices;
using Fehler.Core.Options;

namespace Fehler.Core.Families;

/// <summary>How the supply is earthed.</summary>
public enum SupplySystem
{
    [Word("star, star point earthed")]
    Star,

    [Word("delta, unearthed")]
    Delta,

    [Word("delta, one corner earthed")]
    CornerEarthed,

    [Word("high-leg delta")]
    HighLeg,
}

/// <summary>What protects the motor circuit.</summary>
public enum MotorProtection
{
    [Word("fuses and overload relay")]
    Fuses,

    [Word("circuit-breaker and overload relay")]
    Breaker,

    [Word("motor-protective breaker")]
    MotorBreaker,
}

/// <summary>What feeds the control circuit.</summary>
public enum ControlSupply
{
    [Word("line to neutral")]
    LineToNeutral,

    [Word("line to line")]
    LineToLine,

    [Word("control transformer")]
    Transformer,

    [Word("DC supply")]
    DcSupply,

    [Word("DC supply on the secondary of a control transformer")]
    TransformerAndDcSupply,
}

/// <summary>The phases that feed the control circuit; line to neutral the first of them.</summary>
public enum ControlPhases
{
    [Word("L1 and L2")]
    L1L2,

    [Word("L2 and L3")]
    L2L3,

    [Word("L3 and L1")]
    L3L1,
}

/// <summary>Where Stop stands; electrically one series path.</summary>
public enum StopPlace
{
    [Word("before Start and the retaining contact")]
    BeforeStart,

    [Word("after Start and the retaining contact")]
    AfterStart,
}

/// <summary>How a separate control supply is earthed.</summary>
public enum ControlEarthing
{
    [Word("one side earthed")]
    Earthed,

    [Word("centre tap earthed")]
    CentreTap,

    [Word("unearthed")]
    Unearthed,
}

/// <summary>What protects the control circuit.</summary>
public enum ControlProtection
{
    [Word("taken from the power terminals without a fuse of its own")]
    None,

    [Word("own fuse")]
    Fuse,

    [Word("separate control breaker")]
    SeparateBreaker,
}

/// <summary>Where the overload's break contact stands in the control path; electrically one series path.</summary>
public enum OverloadContactPlace
{
    [Word("first in the path")]
    First,

    [Word("before the coil")]
    BeforeCoil,

    [Word("after the coil, in the return")]
    AfterCoil,
}

/// <summary>Contacts of the process that permit the start.</summary>
public enum Permissive
{
    [Word("none")]
    None,

    [Word("one")]
    One,

    [Word("two in series")]
    TwoInSeries,

    [Word("two in parallel")]
    TwoInParallel,
}

/// <summary>How the motor is started and kept running.</summary>
public enum StartMode
{
    [Word("three-wire: Start, retaining contact, Stop")]
    ThreeWire,

    [Word("two-wire: a switch of the process")]
    TwoWire,

    [Word("hold to run")]
    HoldToRun,
}
