using DeepBaize.Core.Geometry;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

public class TableShapeTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    [Fact]
    public void The_throat_between_two_jaws_is_as_wide_as_the_gap()
    {
        foreach (var pocket in Shape.PocketShapes)
        {
            var apart = Math.Sqrt(Math.Pow(pocket.JawA.X - pocket.JawB.X, 2) + Math.Pow(pocket.JawA.Y - pocket.JawB.Y, 2));
            Assert.Equal(pocket.Pocket.IsMiddle() ? 0.096 : 0.086, apart - 2 * pocket.JawA.Radius, 1e-12);
        }
    }

    [Fact]
    public void Noses_run_smoothly_into_the_jaws()
    {
        // The straight nose ends where the arc's centre stands square to it, one radius behind.
        foreach (var nose in Shape.Noses)
            foreach (var (x, y) in (Vec2[])[nose.From, nose.To])
                Assert.Contains(Shape.PocketShapes.SelectMany(p => new[] { p.JawA, p.JawB }), jaw =>
                    Math.Abs(Math.Sqrt(Math.Pow(jaw.X - x, 2) + Math.Pow(jaw.Y - y, 2)) - jaw.Radius) < 1e-12
                    && (Math.Abs(jaw.X - x) < 1e-12 || Math.Abs(jaw.Y - y) < 1e-12)
                );
    }

    [Theory]
    [InlineData(1, 0.9, true)]
    [InlineData(BallRadius, 0.9, true)]
    [InlineData(BallRadius - 1e-4, 0.9, false)]
    [InlineData(0.045, 0.01, false)] // in a corner's jaw
    [InlineData(0.02, 0.02, true)] // in the throat, short of the drop
    [InlineData(0.06, 0.06, true)]
    [InlineData(-0.05, -0.05, false)]
    [InlineData(Length / 2, 0.01, true)] // in a middle pocket's mouth
    [InlineData(Length / 2, -0.02, false)]
    [InlineData(5, 0.9, false)]
    public void Where_a_ball_can_rest(double x, double y, bool can) => Assert.Equal(can, Shape.CanRest(new(x, y)));

    [Theory]
    [InlineData("cornerGap", 0.2, "conditions.cornerGap")]
    [InlineData("rollingFriction", 0, "conditions.rollingFriction")]
    [InlineData("rollingFriction", double.NaN, "conditions.rollingFriction")]
    [InlineData("colour", 1, "conditions.colour")]
    [InlineData("cornerDropRadius", 0.08, "conditions.cornerDropRadius")]
    public void Conditions_out_of_range_are_refused_by_field(string name, double value, string field)
    {
        var error = Assert.Throws<InputException>(() => Conditions.With([new(name, value)]));
        Assert.Equal(field, error.Errors[0].Field);
    }

    [Fact]
    public void Every_preset_and_every_condition_alone_at_either_end_is_sound_or_refused()
    {
        foreach (var preset in Conditions.Presets)
            Conditions.With(preset.Changes);
        foreach (var field in Conditions.Fields)
            foreach (var value in (double[])[field.Min, field.Max])
            {
                try
                {
                    var c = Conditions.With([new(field.Name, value)]);
                    Assert.Equal(value, field.Get(c));
                    Assert.Equal(value == field.Get(Conditions.Default) ? 0 : 1, c.Changes().Count);
                }
                catch (InputException e)
                {
                    Assert.Equal("pockets", field.Group);
                    Assert.NotEmpty(e.Errors[0].Allowed);
                }
            }
    }
}
