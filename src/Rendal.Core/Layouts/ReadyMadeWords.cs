namespace Rendal.Core.Layouts;

/// <summary>
/// The words of the ready-made layouts in one language. Slots stand as <c>{customer.name}</c>, words under a condition as
/// <c>[we-owe]…[/]</c>.
/// </summary>
internal sealed record ReadyMadeWords
{
    public static IReadOnlyList<ReadyMadeWords> All { get; } =
    [
        new()
        {
            Language = "en",
            ReminderNames = ["Reminder 1, friendly", "Reminder 2, firm", "Reminder 3, last"],
            Reminders =
            [
                "<p>{customer.salutation},</p><p>our books show that {statement.overdue} of your account is past its date; "
                    + "perhaps it has slipped your notice. Please let us have it within seven days.</p><p>If you have paid in the "
                    + "last days, please take this as our thanks. If something is not right, please tell us.</p>",
                "<p>{customer.salutation},</p><p>we have reminded you before and have had neither payment nor answer: "
                    + "{statement.overdue} of your account is past its date. Please pay within seven days, or tell us what stands "
                    + "in the way.</p>",
                "<p>{customer.salutation},</p><p>in spite of our reminders {statement.overdue} of your account is still "
                    + "unpaid. If it is not with us within seven days, we shall have to stop deliveries on account and take further "
                    + "steps, the cost of which would be yours.</p>",
            ],
            ConfirmationName = "Balance confirmation",
            SupplierName = "Balance confirmation, supplier",
            SupplierConfirmation =
                "<p>{customer.salutation},</p><p>for our accounts we ask you to confirm what our books show: on "
                + "{statement.date} we owe you <strong>{statement.total}</strong>, made up as follows. Please compare it with "
                + "your books and send the slip back to us, signed.</p>",
            ConfirmationTitle = "Confirmation of balance",
            Confirmation =
                "<p>{customer.salutation},</p><p>for our accounts we ask you to confirm what our books show on "
                + "{statement.date}: [they-owe]you owe us <strong>{statement.they-owe}</strong>, [/][we-owe]we owe you "
                + "<strong>{statement.we-owe}</strong>, [/]made up as follows. Please compare it with your books and send the "
                + "slip back to us, signed.</p>",
            Reply =
                "<p><strong>Reply to {firm.name}</strong></p><p>Account {customer.code}, {customer.name}: {statement.total} "
                + "on {statement.date}</p><p>[\u00A0\u00A0\u00A0] agrees with our books<br>[\u00A0\u00A0\u00A0] does not agree; "
                + "our books show: ______________________</p><p><br>______________________________________<br>Date, name and "
                + "signature</p>",
            InvoiceListName = "Invoice list",
            InvoiceListTitle = "List of open invoices",
            LetterName = "Plain letter",
            LetterTitle = "Your account {customer.code}",
            Letter = "<p>{customer.salutation},</p><p></p><p>With kind regards</p><p>{firm.name}</p>",
            LetterHint = "Write here what the letter is to say.",
        },
        new()
        {
            Language = "de",
            ReminderNames = ["Zahlungserinnerung 1, freundlich", "Zahlungserinnerung 2, bestimmt", "Zahlungserinnerung 3, letzte"],
            Reminders =
            [
                "<p>{customer.salutation},</p><p>nach unseren Büchern sind {statement.overdue} Ihres Kontos überfällig; "
                    + "vielleicht ist es Ihrer Aufmerksamkeit entgangen. Bitte überweisen Sie den Betrag innerhalb von sieben "
                    + "Tagen.</p><p>Haben Sie in den letzten Tagen gezahlt, so danken wir Ihnen. Stimmt etwas nicht, so geben Sie "
                    + "uns bitte Bescheid.</p>",
                "<p>{customer.salutation},</p><p>auf unsere Erinnerung haben wir weder Zahlung noch Antwort erhalten: "
                    + "{statement.overdue} Ihres Kontos sind überfällig. Bitte zahlen Sie innerhalb von sieben Tagen, oder sagen "
                    + "Sie uns, was dem entgegensteht.</p>",
                "<p>{customer.salutation},</p><p>trotz unserer Erinnerungen sind {statement.overdue} Ihres Kontos noch immer "
                    + "nicht bezahlt. Geht der Betrag nicht innerhalb von sieben Tagen ein, müssen wir die Lieferung auf Rechnung "
                    + "einstellen und weitere Schritte einleiten, deren Kosten Sie zu tragen hätten.</p>",
            ],
            ConfirmationName = "Saldenbestätigung",
            SupplierName = "Saldenbestätigung, Lieferant",
            SupplierConfirmation =
                "<p>{customer.salutation},</p><p>für unseren Abschluss bitten wir Sie zu bestätigen, was unsere Bücher "
                + "zeigen: Am {statement.date} schulden wir Ihnen <strong>{statement.total}</strong>, zusammengesetzt wie "
                + "folgt. Bitte vergleichen Sie mit Ihren Büchern und senden Sie uns den Abschnitt unterschrieben zurück.</p>",
            ConfirmationTitle = "Saldenbestätigung",
            Confirmation =
                "<p>{customer.salutation},</p><p>für unseren Abschluss bitten wir Sie zu bestätigen, was unsere Bücher am "
                + "{statement.date} zeigen: [they-owe]Sie schulden uns <strong>{statement.they-owe}</strong>, [/][we-owe]wir "
                + "schulden Ihnen <strong>{statement.we-owe}</strong>, [/]zusammengesetzt wie folgt. Bitte vergleichen Sie mit "
                + "Ihren Büchern und senden Sie uns den Abschnitt unterschrieben zurück.</p>",
            Reply =
                "<p><strong>Antwort an {firm.name}</strong></p><p>Konto {customer.code}, {customer.name}: {statement.total} "
                + "am {statement.date}</p><p>[\u00A0\u00A0\u00A0] stimmt mit unseren Büchern überein<br>[\u00A0\u00A0\u00A0] "
                + "stimmt nicht überein; unsere Bücher zeigen: "
                + "______________________</p><p><br>______________________________________<br>Datum, Name und Unterschrift</p>",
            InvoiceListName = "Rechnungsliste",
            InvoiceListTitle = "Liste der offenen Rechnungen",
            LetterName = "Brief",
            LetterTitle = "Ihr Konto {customer.code}",
            Letter = "<p>{customer.salutation},</p><p></p><p>Mit freundlichen Grüßen</p><p>{firm.name}</p>",
            LetterHint = "Hier steht, was der Brief sagen soll.",
        },
        new()
        {
            Language = "fr",
            ReminderNames = ["Rappel 1, aimable", "Rappel 2, ferme", "Rappel 3, dernier"],
            Reminders =
            [
                "<p>{customer.salutation},</p><p>d’après nos livres, {statement.overdue} de votre compte sont échus ; cela "
                    + "vous a peut-être échappé. Nous vous prions de régler cette somme sous sept jours.</p><p>Si vous avez payé "
                    + "ces derniers jours, nous vous en remercions. Si quelque chose n’est pas exact, merci de nous le faire "
                    + "savoir.</p>",
                "<p>{customer.salutation},</p><p>notre rappel est resté sans règlement ni réponse : {statement.overdue} de "
                    + "votre compte sont échus. Nous vous prions de payer sous sept jours ou de nous dire ce qui s’y oppose.</p>",
                "<p>{customer.salutation},</p><p>malgré nos rappels, {statement.overdue} de votre compte restent impayés. "
                    + "Sans règlement sous sept jours, nous devrons cesser les livraisons à crédit et engager d’autres démarches, "
                    + "dont les frais seraient à votre charge.</p>",
            ],
            ConfirmationName = "Confirmation de solde",
            SupplierName = "Confirmation de solde, fournisseur",
            SupplierConfirmation =
                "<p>{customer.salutation},</p><p>pour l’arrêté de nos comptes, nous vous prions de confirmer ce que montrent "
                + "nos livres : au {statement.date}, nous vous devons <strong>{statement.total}</strong>, composés comme suit. "
                + "Merci de comparer avec vos livres et de nous renvoyer le talon signé.</p>",
            ConfirmationTitle = "Confirmation de solde",
            Confirmation =
                "<p>{customer.salutation},</p><p>pour l’arrêté de nos comptes, nous vous prions de confirmer ce que montrent "
                + "nos livres au {statement.date} : [they-owe]vous nous devez <strong>{statement.they-owe}</strong>, "
                + "[/][we-owe]nous vous devons <strong>{statement.we-owe}</strong>, [/]comme suit. Veuillez comparer avec vos "
                + "livres et nous renvoyer le talon signé.</p>",
            Reply =
                "<p><strong>Réponse à {firm.name}</strong></p><p>Compte {customer.code}, {customer.name} : {statement.total} "
                + "au {statement.date}</p><p>[\u00A0\u00A0\u00A0] conforme à nos livres<br>[\u00A0\u00A0\u00A0] non conforme ; "
                + "nos livres montrent : ______________________</p><p><br>______________________________________<br>Date, nom "
                + "et signature</p>",
            InvoiceListName = "Liste des factures",
            InvoiceListTitle = "Liste des factures ouvertes",
            LetterName = "Lettre",
            LetterTitle = "Votre compte {customer.code}",
            Letter = "<p>{customer.salutation},</p><p></p><p>Veuillez agréer nos salutations distinguées</p><p>{firm.name}</p>",
            LetterHint = "Écrivez ici le texte de la lettre.",
        },
        new()
        {
            Language = "es",
            ReminderNames = ["Recordatorio 1, amable", "Recordatorio 2, firme", "Recordatorio 3, último"],
            Reminders =
            [
                "<p>{customer.salutation}:</p><p>según nuestros libros, {statement.overdue} de su cuenta están vencidos; "
                    + "quizá se le haya pasado. Le rogamos que los abone en siete días.</p><p>Si ha pagado en los últimos días, "
                    + "muchas gracias. Si algo no es correcto, le rogamos que nos lo comunique.</p>",
                "<p>{customer.salutation}:</p><p>a nuestro recordatorio no hemos recibido ni pago ni respuesta: "
                    + "{statement.overdue} de su cuenta están vencidos. Le rogamos que pague en siete días o nos diga qué lo "
                    + "impide.</p>",
                "<p>{customer.salutation}:</p><p>a pesar de nuestros recordatorios, {statement.overdue} de su cuenta siguen "
                    + "sin pagar. Si no los recibimos en siete días, tendremos que suspender las entregas a crédito y tomar otras "
                    + "medidas, cuyos gastos correrían a su cargo.</p>",
            ],
            ConfirmationName = "Confirmación de saldo",
            SupplierName = "Confirmación de saldo, proveedor",
            SupplierConfirmation =
                "<p>{customer.salutation},</p><p>para el cierre de nuestras cuentas le rogamos que confirme lo que muestran "
                + "nuestros libros: al {statement.date} le debemos <strong>{statement.total}</strong>, compuestos como sigue. "
                + "Por favor, compárelo con sus libros y devuélvanos el talón firmado.</p>",
            ConfirmationTitle = "Confirmación de saldo",
            Confirmation =
                "<p>{customer.salutation}:</p><p>para el cierre de nuestras cuentas le rogamos que confirme lo que muestran "
                + "nuestros libros a {statement.date}: [they-owe]usted nos debe <strong>{statement.they-owe}</strong>, "
                + "[/][we-owe]le debemos <strong>{statement.we-owe}</strong>, [/]según el detalle. Compárelo con sus libros y "
                + "devuélvanos el talón firmado.</p>",
            Reply =
                "<p><strong>Respuesta a {firm.name}</strong></p><p>Cuenta {customer.code}, {customer.name}: {statement.total} "
                + "a {statement.date}</p><p>[\u00A0\u00A0\u00A0] conforme con nuestros libros<br>[\u00A0\u00A0\u00A0] no "
                + "conforme; nuestros libros muestran: "
                + "______________________</p><p><br>______________________________________<br>Fecha, nombre y firma</p>",
            InvoiceListName = "Lista de facturas",
            InvoiceListTitle = "Lista de facturas pendientes",
            LetterName = "Carta",
            LetterTitle = "Su cuenta {customer.code}",
            Letter = "<p>{customer.salutation}:</p><p></p><p>Atentamente,</p><p>{firm.name}</p>",
            LetterHint = "Escriba aquí lo que ha de decir la carta.",
        },
    ];

    public required string Language { get; init; }

    public required IReadOnlyList<string> ReminderNames { get; init; }

    public required IReadOnlyList<string> Reminders { get; init; }

    public required string SupplierName { get; init; }

    public required string SupplierConfirmation { get; init; }

    public required string ConfirmationName { get; init; }

    public required string ConfirmationTitle { get; init; }

    public required string Confirmation { get; init; }

    public required string Reply { get; init; }

    public required string InvoiceListName { get; init; }

    public required string InvoiceListTitle { get; init; }

    public required string LetterName { get; init; }

    public required string LetterTitle { get; init; }

    public required string Letter { get; init; }

    /// <summary>What stands in a letter where its own words are to go.</summary>
    public required string LetterHint { get; init; }
}
