-- Which corrections have made a ledger row what it is. It stays, whatever becomes of the correction later. Rows of earlier
-- intakes are not in it.
create table row_correction (
    book_id bigint not null,
    intake_id bigint not null,
    row int not null check (row > 0),
    correction_id bigint not null,
    primary key (book_id, intake_id, row, correction_id),
    foreign key (book_id, intake_id) references intake,
    foreign key (book_id, correction_id) references correction
);
