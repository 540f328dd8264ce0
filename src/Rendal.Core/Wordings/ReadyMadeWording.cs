using Rendal.Core.Templates;

namespace Rendal.Core.Wordings;

/// <summary>A wording to begin from.</summary>
/// <param name="Purpose">What it is for, one of <see cref="Purposes.All"/>.</param>
/// <param name="Wording">The wording.</param>
public sealed record ReadyMadeWording(string Purpose, Wording Wording)
{
    private const string Table = "<p>{statement.table}</p>";

    /// <summary>
    /// In English, German, French and Spanish: for statements, three reminders of growing firmness, confirmations of balance and lists of
    /// invoices.
    /// </summary>
    public static IReadOnlyList<ReadyMadeWording> All { get; } = [.. English(), .. German(), .. French(), .. Spanish()];

    /// <summary>The one for a purpose in a language; null where there is none.</summary>
    public static Wording? Find(string purpose, string language) =>
        All.FirstOrDefault(r => r.Purpose == purpose && r.Wording.Language == language)?.Wording;

    private static IEnumerable<ReadyMadeWording> English()
    {
        const string begin = "<p>{customer.salutation},</p>",
            end = "<p>With kind regards<br>{sender.name}</p>";
        yield return Of(
            Purposes.Statement,
            "en",
            "Month end, friendly",
            "{firm.name}: statement at {statement.date}, {statement.total}",
            $"{begin}<p>on {{statement.date}} your account {{customer.code}} stands at {{statement.total}}; the items past "
                + $"their date come to {{statement.overdue}}. The statement is enclosed; the items are these:</p>{Table}<p>If "
                + "something is not right, please answer this message; if you have paid in the last days, please take this as our "
                + $"thanks.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(1),
            "en",
            "Reminder 1, friendly",
            "{firm.name}: a reminder of {statement.overdue}",
            $"{begin}<p>it may have slipped your notice: on {{statement.date}} {{statement.overdue}} of your account "
                + $"{{customer.code}} is past its date. The statement is enclosed; the items are these:</p>{Table}<p>Please let us "
                + "have what is due within seven days.</p><p>If something is not right, please answer this message; if you have "
                + $"paid in the last days, please take this as our thanks.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(2),
            "en",
            "Reminder 2, firm",
            "{firm.name}: second reminder, {statement.overdue} past due",
            $"{begin}<p>we have written to you about your account {{customer.code}} before and have had neither payment nor "
                + $"answer. On {{statement.date}} {{statement.overdue}} is past its date:</p>{Table}<p>Please pay within seven days, "
                + $"or tell us what stands in the way.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(3),
            "en",
            "Reminder 3, last",
            "{firm.name}: last reminder, {statement.overdue} past due",
            $"{begin}<p>in spite of our reminders {{statement.overdue}} of your account {{customer.code}} is still unpaid on "
                + $"{{statement.date}}:</p>{Table}<p>This is our last reminder. If the amount is not with us within seven days, we "
                + $"shall have to stop deliveries on account and take further steps, the cost of which would be yours.</p>{end}"
        );
        yield return Of(
            Purposes.Confirmation,
            "en",
            "Confirmation of balance",
            "{firm.name}: please confirm your balance at {statement.date}",
            $"{begin}<p>for our accounts we ask you to confirm what our books show for your account {{customer.code}} on "
                + $"{{statement.date}}: [they-owe]you owe us {{statement.they-owe}}, [/][we-owe]we owe you {{statement.we-owe}}, "
                + $"[/]made up as follows:</p>{Table}<p>Please compare it with your books, and send the slip at the foot of the "
                + $"enclosed letter back to us, signed.</p>{end}"
        );
        yield return Of(
            Purposes.InvoiceList,
            "en",
            "Open invoices",
            "{firm.name}: your open invoices at {statement.date}",
            $"{begin}<p>enclosed is the list of the invoices of your account {{customer.code}} that are open on "
                + $"{{statement.date}}, {{statement.total}} in all.</p>{end}"
        );
    }

    private static IEnumerable<ReadyMadeWording> German()
    {
        const string begin = "<p>{customer.salutation},</p>",
            end = "<p>Mit freundlichen Grüßen<br>{sender.name}</p>";
        yield return Of(
            Purposes.Statement,
            "de",
            "Monatsende, freundlich",
            "{firm.name}: Kontoauszug zum {statement.date}, {statement.total}",
            $"{begin}<p>am {{statement.date}} beträgt der Saldo Ihres Kontos {{customer.code}} {{statement.total}}; die "
                + $"überfälligen Posten kommen auf {{statement.overdue}}. Der Kontoauszug liegt bei; die Posten sind "
                + $"diese:</p>{Table}<p>Stimmt etwas nicht, so antworten Sie bitte auf diese Nachricht. Haben Sie in den letzten "
                + $"Tagen gezahlt, so danken wir Ihnen.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(1),
            "de",
            "Zahlungserinnerung 1, freundlich",
            "{firm.name}: Erinnerung an {statement.overdue}",
            $"{begin}<p>vielleicht ist es Ihrer Aufmerksamkeit entgangen: Am {{statement.date}} sind {{statement.overdue}} "
                + $"Ihres Kontos {{customer.code}} überfällig. Der Kontoauszug liegt bei; die Posten sind diese:</p>{Table}<p>Bitte "
                + "überweisen Sie den fälligen Betrag innerhalb von sieben Tagen.</p><p>Stimmt etwas nicht, so antworten Sie bitte "
                + $"auf diese Nachricht. Haben Sie in den letzten Tagen gezahlt, so danken wir Ihnen.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(2),
            "de",
            "Zahlungserinnerung 2, bestimmt",
            "{firm.name}: zweite Erinnerung, {statement.overdue} überfällig",
            $"{begin}<p>wegen Ihres Kontos {{customer.code}} haben wir Ihnen schon geschrieben und weder Zahlung noch Antwort "
                + $"erhalten. Am {{statement.date}} sind {{statement.overdue}} überfällig:</p>{Table}<p>Bitte zahlen Sie innerhalb "
                + $"von sieben Tagen, oder sagen Sie uns, was dem entgegensteht.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(3),
            "de",
            "Zahlungserinnerung 3, letzte",
            "{firm.name}: letzte Erinnerung, {statement.overdue} überfällig",
            $"{begin}<p>trotz unserer Erinnerungen sind am {{statement.date}} {{statement.overdue}} Ihres Kontos "
                + $"{{customer.code}} noch immer nicht bezahlt:</p>{Table}<p>Dies ist unsere letzte Erinnerung. Geht der Betrag "
                + "nicht innerhalb von sieben Tagen ein, müssen wir die Lieferung auf Rechnung einstellen und weitere Schritte "
                + $"einleiten, deren Kosten Sie zu tragen hätten.</p>{end}"
        );
        yield return Of(
            Purposes.Confirmation,
            "de",
            "Saldenbestätigung",
            "{firm.name}: Bitte bestätigen Sie Ihren Saldo zum {statement.date}",
            $"{begin}<p>für unseren Abschluss bitten wir Sie zu bestätigen, was unsere Bücher am {{statement.date}} für Ihr "
                + $"Konto {{customer.code}} zeigen: [they-owe]Sie schulden uns {{statement.they-owe}}, [/][we-owe]wir schulden Ihnen "
                + $"{{statement.we-owe}}, [/]zusammengesetzt wie folgt:</p>{Table}<p>Bitte vergleichen Sie mit Ihren Büchern und "
                + $"senden Sie uns den Abschnitt am Fuß des beiliegenden Schreibens unterschrieben zurück.</p>{end}"
        );
        yield return Of(
            Purposes.InvoiceList,
            "de",
            "Offene Rechnungen",
            "{firm.name}: Ihre offenen Rechnungen zum {statement.date}",
            $"{begin}<p>beiliegend erhalten Sie die Liste der Rechnungen Ihres Kontos {{customer.code}}, die am "
                + $"{{statement.date}} offen sind, zusammen {{statement.total}}.</p>{end}"
        );
    }

    private static IEnumerable<ReadyMadeWording> French()
    {
        const string begin = "<p>{customer.salutation},</p>",
            end = "<p>Veuillez agréer nos salutations distinguées<br>{sender.name}</p>";
        yield return Of(
            Purposes.Statement,
            "fr",
            "Fin de mois, aimable",
            "{firm.name} : relevé au {statement.date}, {statement.total}",
            $"{begin}<p>au {{statement.date}}, le solde de votre compte {{customer.code}} est de {{statement.total}} ; les "
                + $"écritures échues s’élèvent à {{statement.overdue}}. Le relevé est joint ; en voici le détail :</p>{Table}<p>Si "
                + "quelque chose n’est pas exact, merci de répondre à ce message. Si vous avez payé ces derniers jours, nous vous "
                + $"en remercions.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(1),
            "fr",
            "Rappel 1, aimable",
            "{firm.name} : rappel de {statement.overdue}",
            $"{begin}<p>cela vous a peut-être échappé : au {{statement.date}}, {{statement.overdue}} de votre compte "
                + $"{{customer.code}} sont échus. Le relevé est joint ; en voici le détail :</p>{Table}<p>Nous vous prions de régler "
                + "la somme échue sous sept jours.</p><p>Si quelque chose n’est pas exact, merci de répondre à ce message. Si vous "
                + $"avez payé ces derniers jours, nous vous en remercions.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(2),
            "fr",
            "Rappel 2, ferme",
            "{firm.name} : deuxième rappel, {statement.overdue} échus",
            $"{begin}<p>nous vous avons déjà écrit au sujet de votre compte {{customer.code}}, sans règlement ni réponse. Au "
                + $"{{statement.date}}, {{statement.overdue}} sont échus :</p>{Table}<p>Nous vous prions de payer sous sept jours ou "
                + $"de nous dire ce qui s’y oppose.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(3),
            "fr",
            "Rappel 3, dernier",
            "{firm.name} : dernier rappel, {statement.overdue} échus",
            $"{begin}<p>malgré nos rappels, {{statement.overdue}} de votre compte {{customer.code}} restent impayés au "
                + $"{{statement.date}} :</p>{Table}<p>Ceci est notre dernier rappel. Sans règlement sous sept jours, nous devrons "
                + $"cesser les livraisons à crédit et engager d’autres démarches, dont les frais seraient à votre charge.</p>{end}"
        );
        yield return Of(
            Purposes.Confirmation,
            "fr",
            "Confirmation de solde",
            "{firm.name} : merci de confirmer votre solde au {statement.date}",
            $"{begin}<p>pour l’arrêté de nos comptes, nous vous prions de confirmer ce que montrent nos livres pour votre "
                + $"compte {{customer.code}} au {{statement.date}} : [they-owe]vous nous devez {{statement.they-owe}}, "
                + $"[/][we-owe]nous vous devons {{statement.we-owe}}, [/]comme suit :</p>{Table}<p>Veuillez comparer avec vos livres "
                + $"et nous renvoyer signé le talon au bas de la lettre jointe.</p>{end}"
        );
        yield return Of(
            Purposes.InvoiceList,
            "fr",
            "Factures ouvertes",
            "{firm.name} : vos factures ouvertes au {statement.date}",
            $"{begin}<p>vous trouverez ci-joint la liste des factures de votre compte {{customer.code}} ouvertes au "
                + $"{{statement.date}}, soit {{statement.total}}.</p>{end}"
        );
    }

    private static IEnumerable<ReadyMadeWording> Spanish()
    {
        const string begin = "<p>{customer.salutation}:</p>",
            end = "<p>Atentamente,<br>{sender.name}</p>";
        yield return Of(
            Purposes.Statement,
            "es",
            "Fin de mes, amable",
            "{firm.name}: extracto a {statement.date}, {statement.total}",
            $"{begin}<p>a {{statement.date}} el saldo de su cuenta {{customer.code}} es de {{statement.total}}; las partidas "
                + $"vencidas suman {{statement.overdue}}. Adjuntamos el extracto; el detalle es este:</p>{Table}<p>Si algo no es "
                + $"correcto, le rogamos que responda a este mensaje. Si ha pagado en los últimos días, muchas gracias.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(1),
            "es",
            "Recordatorio 1, amable",
            "{firm.name}: recordatorio de {statement.overdue}",
            $"{begin}<p>quizá se le haya pasado: a {{statement.date}}, {{statement.overdue}} de su cuenta {{customer.code}} "
                + $"están vencidos. Adjuntamos el extracto; el detalle es este:</p>{Table}<p>Le rogamos que abone lo vencido en "
                + "siete días.</p><p>Si algo no es correcto, le rogamos que responda a este mensaje. Si ha pagado en los últimos "
                + $"días, muchas gracias.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(2),
            "es",
            "Recordatorio 2, firme",
            "{firm.name}: segundo recordatorio, {statement.overdue} vencidos",
            $"{begin}<p>ya le hemos escrito sobre su cuenta {{customer.code}} y no hemos recibido ni pago ni respuesta. A "
                + $"{{statement.date}}, {{statement.overdue}} están vencidos:</p>{Table}<p>Le rogamos que pague en siete días o nos "
                + $"diga qué lo impide.</p>{end}"
        );
        yield return Of(
            Purposes.OfLevel(3),
            "es",
            "Recordatorio 3, último",
            "{firm.name}: último recordatorio, {statement.overdue} vencidos",
            $"{begin}<p>a pesar de nuestros recordatorios, {{statement.overdue}} de su cuenta {{customer.code}} siguen sin "
                + $"pagar a {{statement.date}}:</p>{Table}<p>Este es nuestro último recordatorio. Si no recibimos el importe en "
                + "siete días, tendremos que suspender las entregas a crédito y tomar otras medidas, cuyos gastos correrían a su "
                + $"cargo.</p>{end}"
        );
        yield return Of(
            Purposes.Confirmation,
            "es",
            "Confirmación de saldo",
            "{firm.name}: le rogamos que confirme su saldo a {statement.date}",
            $"{begin}<p>para el cierre de nuestras cuentas le rogamos que confirme lo que muestran nuestros libros de su "
                + $"cuenta {{customer.code}} a {{statement.date}}: [they-owe]usted nos debe {{statement.they-owe}}, [/][we-owe]le "
                + $"debemos {{statement.we-owe}}, [/]según el detalle:</p>{Table}<p>Compárelo con sus libros y devuélvanos firmado "
                + $"el talón que está al pie de la carta adjunta.</p>{end}"
        );
        yield return Of(
            Purposes.InvoiceList,
            "es",
            "Facturas pendientes",
            "{firm.name}: sus facturas pendientes a {statement.date}",
            $"{begin}<p>adjuntamos la lista de las facturas de su cuenta {{customer.code}} pendientes a {{statement.date}}, en "
                + $"total {{statement.total}}.</p>{end}"
        );
    }

    private static ReadyMadeWording Of(string purpose, string language, string name, string subject, string body) =>
        new(purpose, new Wording(name, language, WrittenSlots.Html(subject), WrittenSlots.Html(body)));
}
