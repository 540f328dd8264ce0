using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class PaymentTermsTests
{
    [Theory]
    [InlineData("30", 30, false)]
    [InlineData("0", 0, false)]
    [InlineData("3650", 3650, false)]
    [InlineData("30 days", 30, false)]
    [InlineData("1 day", 1, false)]
    [InlineData("Net 14", 14, false)]
    [InlineData("14 net", 14, false)]
    [InlineData("30 Tage netto", 30, false)]
    [InlineData("EOM", 0, true)]
    [InlineData("eom+30", 30, true)]
    [InlineData("end of month + 30 days", 30, true)]
    [InlineData("30 days end of month", 30, true)]
    public void Terms_are_understood_as_the_trade_writes_them(string written, int days, bool fromMonthEnd)
    {
        Assert.True(PaymentTerms.TryParse(written, out var terms));
        Assert.Equal(new PaymentTerms(days, fromMonthEnd), terms);
        Assert.True(PaymentTerms.TryParse(terms.ToString(), out var again));
        Assert.Equal(terms, again);
    }

    [Theory]
    [InlineData("")]
    [InlineData("3651")]
    [InlineData("-5")]
    [InlineData("soon")]
    [InlineData("99999999999")]
    public void What_is_no_terms_is_said_to_be_none(string written) => Assert.False(PaymentTerms.TryParse(written, out _));

    [Fact]
    public void The_due_date_follows_from_the_documents_date()
    {
        Assert.Equal(new DateOnly(2026, 2, 14), new PaymentTerms(30).DueOn(new DateOnly(2026, 1, 15)));
        Assert.Equal(new DateOnly(2026, 3, 2), new PaymentTerms(30, FromMonthEnd: true).DueOn(new DateOnly(2026, 1, 15)));
        Assert.Equal(new DateOnly(2028, 2, 29), new PaymentTerms(0, FromMonthEnd: true).DueOn(new DateOnly(2028, 2, 1)));
    }
}
